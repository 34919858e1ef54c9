/** Starts the server: `node main.js [--demo]`. Whatever stops it is told in one line. */
import 'reflect-metadata';
import { LibraryError } from '@waxwing/library';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { createApp } from './app.js';
import { readConfig, StartError, type Config } from './config.js';
import { StudioService } from './studio/studio.service.js';

const WEB = fileURLToPath(new URL('../../web/dist', import.meta.url));

async function start(config: Config, demo: boolean): Promise<void> {
  const app = await createApp(config, WEB);
  if (demo) await app.get(StudioService).becomeDemo(new Date());
  await app.listen(config.port, config.host);
  const { port } = app.getHttpServer().address() as AddressInfo;
  console.log(`Waxwing is open at http://${config.host === '127.0.0.1' ? 'localhost' : config.host}:${port}`);
  if (demo) console.log(`It shows the demo studio, made fresh in ${config.dataFolder}.`);
  else console.log(`Your data is in ${config.dataFolder}.`);
}

function explain(error: unknown, env: NodeJS.ProcessEnv): string {
  if (error instanceof StartError || error instanceof LibraryError) return error.message;
  const code = error instanceof Error && 'code' in error ? error.code : undefined;
  if (code === 'EADDRINUSE') return `Port ${env.PORT ?? 4310} is in use. Choose another, such as PORT=4311.`;
  if (code === 'SQLITE_CANTOPEN' || code === 'SQLITE_READONLY')
    return `Cannot write the database in ${env.WAXWING_DATA ?? './data'}.`;
  return error instanceof Error ? (error.stack ?? error.message) : String(error);
}

try {
  await start(readConfig(process.env), process.argv.includes('--demo'));
} catch (error) {
  console.error(explain(error, process.env));
  process.exit(1);
}
