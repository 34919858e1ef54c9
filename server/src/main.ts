/** Starts the server: `node main.js [--demo] [--network] [--accept-loss]`. Whatever stops it is told in one line. */
import 'reflect-metadata';

import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

import type { NestExpressApplication } from '@nestjs/platform-express';
import { LibraryError } from '@waxwing/library';

import { createApp } from './app.js';
import { type Config, type NetworkConfig, readConfig, StartError } from './config.js';
import { AccountsService } from './door/accounts.service.js';
import { NetworkService } from './network/network.service.js';
import { guardAgainstSlow, openNetwork } from './network/network-server.js';
import { logged } from './problems/problem.filter.js';
import { endWhenTold } from './stop.js';
import { StudioService } from './studio/studio.service.js';

const WEB = fileURLToPath(new URL('../../web/dist', import.meta.url));

async function start(config: Config, demo: boolean, acceptLoss: boolean): Promise<void> {
  const app = await createApp(config, WEB, acceptLoss);
  endWhenTold(app.getHttpServer());
  try {
    if (demo) await app.get(StudioService).startAsDemo(new Date());
    // Said before anything is open: whoever asked for the network gets it, or nothing.
    if (config.network) await somebodySignsIn(app);
    const server = app.getHttpServer().listen(config.port, config.host);
    // An address that cannot be listened on says so here.
    await once(server, 'listening');
    guardAgainstSlow(server);
  } catch (error) {
    await app.close();
    throw error;
  }
  const { port } = app.getHttpServer().address() as AddressInfo;
  console.log(`Waxwing is open at http://${config.host === '127.0.0.1' ? 'localhost' : config.host}:${port}`);
  if (demo) console.log(`It shows the demo studio in ${config.dataFolder}.`);
  else console.log(`Your data is in ${config.dataFolder}.`);
  if (config.network) await overNetwork(app, config, config.network);
}

/** @throws StartError while nobody could come in from another device */
async function somebodySignsIn(app: NestExpressApplication): Promise<void> {
  const owner = await app.get(AccountsService).owner();
  if (!owner?.passphrase)
    throw new StartError(
      'Nobody could sign in from another device yet. Start Waxwing without --network, and set a passphrase under Studio.',
    );
}

/** Opens the way for other devices. */
async function overNetwork(app: NestExpressApplication, config: Config, on: NetworkConfig): Promise<void> {
  const network = await openNetwork(app, on, config.dataFolder);
  endWhenTold(network.server);
  app.get(NetworkService).opened(network);
  console.log('Other devices of your network find it at');
  for (const address of network.addresses) console.log(`  ${address}`);
  if (network.root)
    console.log(`On each, open ${network.addresses[0]}/trust first. Its fingerprint is\n  ${network.fingerprint}`);
}

function explain(error: unknown, env: NodeJS.ProcessEnv): string {
  if (error instanceof StartError || error instanceof LibraryError) return error.message;
  const code = error instanceof Error && 'code' in error ? error.code : undefined;
  if (code === 'EADDRINUSE') return `Port ${env.PORT ?? 4310} is in use. Choose another, such as PORT=4311.`;
  if (code === 'EACCES') return `Port ${env.PORT ?? 4310} is not for everybody. Choose another, such as PORT=4311.`;
  if (code === 'ENOTFOUND' || code === 'EADDRNOTAVAIL' || code === 'EAI_AGAIN' || code === 'EINVAL')
    return `HOST must be an address of this machine, not "${env.HOST}". 127.0.0.1 is this machine alone.`;
  if (code === 'SQLITE_CANTOPEN' || code === 'SQLITE_READONLY')
    return `Cannot write the database in ${env.WAXWING_DATA ?? './data'}.`;
  return logged(error);
}

// Whatever is made is for this user alone.
process.umask(0o077);
try {
  const { argv, env } = process;
  const demo = argv.includes('--demo');
  const config = readConfig(env, argv.includes('--network'));
  // The demo is made anew at each start, and so is its key: it is thrown away with the rest.
  if (demo) config.keys = { folder: join(config.dataFolder, 'keys'), given: null };
  await start(config, demo, argv.includes('--accept-loss'));
} catch (error) {
  console.error(explain(error, process.env));
  process.exit(1);
}
