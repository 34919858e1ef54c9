/**
 * `node scripts/soak.mjs [faults]`: two devices tap in one session while things go wrong at random: kills, a full disk, commits that fail,
 * imports, cut connections, taps sent twice, late, in another order, or by a clock that jumped. Prints what became of it as JSON.
 */
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { appendFileSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pass } from 'node:timers/promises';
import { pathToFileURL } from 'node:url';

import Database from 'better-sqlite3';

import { SERVER } from './prepare.mjs';

const DAY = 86_400_000;
const FAULTS = /** @type {const} */ (['kill', 'full', 'commit', 'import', 'cut', 'twice', 'order', 'clock']);

/**
 * @param {number} faults how many things go wrong
 * @param {number} seed the same one goes the same way, as far as machines let it
 */
export async function soak(faults, seed = 11) {
  let state = seed;
  /** @param {number} most */
  const pick = (most) => {
    state = (state * 1103515245 + 12345) & 0x7fffffff;
    return Math.floor((state / 0x7fffffff) * most);
  };
  let made = 0;
  const uuid = () => `018f0000-0000-7000-8000-${(made += 1).toString(16).padStart(12, '0')}`;

  const place = mkdtempSync(join(tmpdir(), 'waxwing-soak-'));
  const folder = join(place, 'data');
  mkdirSync(folder);
  // Without the right to mount, a full disk is left out; all else is tried.
  const small = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=256m', 'tmpfs', folder]).status === 0;
  const database = join(folder, 'waxwing.sqlite');

  let server = await start(folder);
  let up = true;
  /**
   * @param {string} path
   * @param {unknown} body
   * @param {AbortSignal} [signal]
   */
  const post = async (path, body, signal) => {
    const answer = await fetch(`${server.address}/api${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
      ...(signal ? { signal } : {}),
    });
    return { status: answer.status, body: await answer.json() };
  };
  const pack = await (await fetch(`${server.address}/api/library/pack`)).text();
  const { body: client } = await post('/clients', { name: 'Somebody' });
  const { body: session } = await post('/sessions', { clientIds: [client.id], startedAt: new Date().toISOString() });

  /** @type {Set<string>} */
  const acknowledged = new Set();
  /** @type {Record<string, number>} */
  const happened = {};
  let counter = 0;
  let jump = 0;
  let refusedForGood = 0;
  let checks = 0;
  let broken = 0;
  const tap = () => ({
    id: uuid(),
    sessionId: session.id,
    clientId: client.id,
    counter: (counter += 1),
    at: new Date(Date.now() + jump).toISOString(),
    type: 'note-written',
    data: { text: `tap ${counter} ${'.'.repeat(400)}` },
  });
  let over = false;
  /** @type {ReturnType<typeof tap>[]} */
  let sent = [];
  let mode = '';

  /** A device: keeps what is not acknowledged, and sends it again until it is. */
  const device = async () => {
    /** @type {ReturnType<typeof tap>[]} */
    let waiting = [];
    while (!over || waiting.length > 0) {
      if (!over) while (waiting.length < 1 + pick(4)) waiting.push(tap());
      const events =
        mode === 'order' ? waiting.toReversed() : mode === 'twice' ? [...sent.slice(-3), ...waiting] : waiting;
      const signal = mode === 'cut' ? AbortSignal.timeout(1 + pick(6)) : undefined;
      try {
        const { status } = await post(`/sessions/${session.id}/events`, { events }, signal);
        if (status === 200) {
          for (const { id } of events) acknowledged.add(id);
          sent = [...sent, ...waiting].slice(-20);
          waiting = [];
        } else if (status < 500) {
          refusedForGood += 1;
          waiting = [];
        } else await pass(5);
      } catch {
        await pass(up ? 2 : 20);
      }
    }
  };
  const devices = [device(), device()];

  /** @param {(db: import('better-sqlite3').Database) => void} work */
  const inside = (work) => {
    const db = new Database(database);
    try {
      db.pragma('busy_timeout = 5000');
      work(db);
    } finally {
      db.close();
    }
  };

  /** Only reads: a connection that may write would mend the log that the next start is to find. */
  const look = () => {
    const db = new Database(database, { readonly: true });
    checks += 1;
    if (db.pragma('integrity_check', { simple: true }) !== 'ok') broken += 1;
    db.close();
  };
  const killed = async () => {
    up = false;
    const gone = once(server.child, 'exit');
    server.child.kill('SIGKILL');
    await gone;
    try {
      look();
    } catch {
      // No room to look; the start that follows must still do.
    }
  };

  for (let n = 0; n < faults; n += 1) {
    const fault = FAULTS[pick(FAULTS.length)] ?? 'kill';
    happened[fault] = (happened[fault] ?? 0) + 1;
    await pass(10 + pick(40));
    switch (fault) {
      case 'kill':
        await killed();
        server = await start(folder);
        up = true;
        break;
      case 'full': {
        if (!small) break;
        const filler = join(folder, 'filler');
        try {
          for (;;) appendFileSync(filler, Buffer.alloc(1024 * 1024));
        } catch {
          // It is full.
        }
        await pass(60 + pick(60));
        // What was being carried over when the disk ran full is left half done.
        const dies = pick(3) === 0;
        if (dies) await killed();
        rmSync(filler, { force: true });
        if (dies) server = await start(folder);
        up = true;
        break;
      }
      case 'commit':
        // Looked at only at the commit: each COMMIT fails and leaves its transaction open.
        try {
          inside((db) =>
            db.exec(`CREATE TABLE IF NOT EXISTS trouble (x TEXT REFERENCES clients(id) DEFERRABLE INITIALLY DEFERRED);
              CREATE TRIGGER IF NOT EXISTS trouble_comes AFTER INSERT ON events BEGIN INSERT INTO trouble VALUES ('nobody'); END`),
          );
          await pass(30 + pick(40));
        } finally {
          inside((db) => db.exec('DROP TRIGGER IF EXISTS trouble_comes'));
        }
        break;
      case 'import':
        await taken(server.address, pack).catch(() => undefined);
        break;
      case 'clock':
        jump = pick(2) ? 2 * DAY : -3 * DAY;
        await pass(20);
        jump = 0;
        break;
      default:
        mode = fault;
        await pass(30 + pick(30));
        mode = '';
    }
  }
  over = true;
  await Promise.all(devices);
  const gone = once(server.child, 'exit');
  server.child.kill('SIGTERM');
  await gone;
  /** @type {{ id: string }[]} */
  let rows = [];
  look();
  inside((db) => {
    rows = /** @type {{ id: string }[]} */ (db.prepare('SELECT id FROM events').all());
  });
  const there = new Set(rows.map(({ id }) => id));
  if (small) spawnSync('umount', ['-l', folder]);
  rmSync(place, { recursive: true, force: true });
  return {
    taps: acknowledged.size,
    lost: [...acknowledged].filter((id) => !there.has(id)).length,
    twice: rows.length - there.size,
    refused: refusedForGood,
    checks,
    broken,
    happened,
  };
}

/** @param {string} folder */
async function start(folder) {
  for (let tries = 0; tries < 100; tries += 1) {
    const child = spawn(process.execPath, [SERVER], {
      env: { ...process.env, NODE_OPTIONS: '', WAXWING_DATA: folder, WAXWING_KEYS: join(folder, 'keys'), PORT: '0' },
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const line = await Promise.race([once(child.stdout, 'data'), once(child, 'exit').then(() => null)]);
    const address = line && /http:\S+/.exec(String(line[0]))?.[0].replace('localhost', '127.0.0.1');
    if (address) return { child, address };
    // The disk may still be full.
    await pass(50);
  }
  throw new Error('the server does not start on what is there');
}

/**
 * Takes the whole library in once more.
 * @param {string} address
 * @param {string} pack
 */
async function taken(address, pack) {
  const looked = await fetch(`${address}/api/imports?kind=pack`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: pack,
  });
  const { importId, rows } = /** @type {import('@waxwing/core/formats').ImportPreview} */ (await looked.json());
  const take = rows.slice(0, 60).map(({ id }) => id);
  const answer = await fetch(`${address}/api/imports/${importId}/apply`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ take }),
  });
  await answer.text();
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  console.log(JSON.stringify(await soak(Number(process.argv[2] ?? 40), Number(process.argv[3] ?? 11))));
