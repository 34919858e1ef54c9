import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';

import { LIBRARY } from './test/studio-server.js';

const MAIN = join(import.meta.dirname, '../bundle/main.js');
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'waxwing-start-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

/** Starts the built server, which is expected to give up, and returns what it said. */
async function refusal(env: Record<string, string>, ...args: string[]): Promise<string> {
  const child = spawn(process.execPath, [MAIN, ...args], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      WAXWING_DATA: folder,
      WAXWING_KEYS: join(folder, 'keys'),
      PORT: '0',
      ...env,
    },
  });
  let said = '';
  child.stdout.on('data', (data: Buffer) => child.kill() && (said += `started: ${data.toString()}`));
  child.stderr.on('data', (data: Buffer) => (said += data.toString()));
  const [code] = (await once(child, 'exit')) as [number | null];
  expect(code).toBe(1);
  return said.trim();
}

describe('what stops the start is told in one line', () => {
  test('a port in use', async () => {
    const other = createServer().listen(0, '127.0.0.1');
    await once(other, 'listening');
    const { port } = other.address() as { port: number };
    expect(await refusal({ PORT: String(port) })).toBe(`Port ${port} is in use. Choose another, such as PORT=4311.`);
    other.close();
  });

  test(
    'a port that is none',
    async () =>
      expect(await refusal({ PORT: 'harbour' })).toBe('PORT must be a number from 0 to 65535, not "harbour".'),
    20_000,
  );

  test('an address beyond this machine, which would be without HTTPS', async () => {
    for (const host of ['0.0.0.0', 'nonsense.invalid'])
      expect(await refusal({ HOST: host })).toBe(
        `HOST=${host} would send health notes over the network for everybody to read. Use npm start -- --network, or a proxy with HTTPS (see docs/network.md).`,
      );
  });

  test('the network, while nobody could sign in from it', async () => {
    expect(await refusal({}, '--network')).toBe(
      'Nobody could sign in from another device yet. Start Waxwing without --network, and set a passphrase under Studio.',
    );
  });

  test('a data folder that cannot be written', async () => {
    const file = join(folder, 'file');
    writeFileSync(file, '');
    // The second is a place where the system itself refuses every new folder.
    for (const place of [join(file, 'data'), '/proc/waxwing'])
      expect(await refusal({ WAXWING_DATA: place })).toBe(
        `Cannot write to the data folder ${place}. Choose another with WAXWING_DATA.`,
      );
  });

  test('a damaged database, which is left as it was', async () => {
    const database = join(folder, 'waxwing.sqlite');
    const rubbish = Buffer.alloc(8192, 'not a database ');
    writeFileSync(database, rubbish);
    const said = await refusal({});
    expect(said).toMatch(/^The database .*waxwing\.sqlite is damaged \(.*\)\. Bring back a backup .*--accept-loss\.$/);
    expect(readFileSync(database)).toEqual(rubbish);
  });

  test('a figure file with an angle that no body has', async () => {
    const figures = join(folder, 'figures');
    cpSync(join(LIBRARY, '../figures'), figures, { recursive: true });
    const file = join(figures, 'hinge.yaml');
    writeFileSync(file, readFileSync(file, 'utf8').replace('joint: hip', 'joint: tail'));
    expect(await refusal({ WAXWING_FIGURES: figures })).toMatch(/^hinge\.yaml: dumbbell-romanian-deadlift\.joint /);
  });

  test('a movement file with a phase missing', async () => {
    const library = join(folder, 'library');
    mkdirSync(library);
    cpSync(LIBRARY, library, { recursive: true });
    const file = join(library, 'plank/forearm-plank.yaml');
    writeFileSync(file, readFileSync(file, 'utf8').replace(/^phases:.*$/m, ''));
    expect(await refusal({ WAXWING_LIBRARY: library })).toBe('plank/forearm-plank.yaml: phases is missing');
  });
});
