/** Studios of any age for the figures: clients with sessions that were really done, written straight into a database that the server made. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pass } from 'node:timers/promises';

import Database from 'better-sqlite3';

import { OPEN_DOOR, openDoor, SERVER } from './prepare.mjs';

/** Events of each session. */
const EVENTS = 50;
/** Sessions of each client: about two years of one a week. */
const SESSIONS_EACH = 100;
const DAY = 86_400_000;
const MOVEMENTS = ['goblet-squat', 'push-up', 'glute-bridge', 'bent-over-row', 'split-squat', 'forearm-plank'];

/** @param {number} n */
const uuid = (n) => `018f0000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`;

/** @type {Set<import('node:child_process').ChildProcess>} */
const running = new Set();

/** Ends every server that is still there, such as after a figure that failed half-way. */
export const stopAll = () =>
  Promise.all(
    [...running].map((child) => {
      const gone = once(child, 'exit');
      child.kill('SIGKILL');
      return gone;
    }),
  );

/**
 * Starts a server.
 * @param {string} folder
 * @param {Record<string, string>} env
 * @param {{ name: string, open: boolean, passphrase?: string } | null} door who runs a fresh studio; null where it is known
 * @param {string[]} args
 */
export async function startOn(folder, env = {}, door = OPEN_DOOR, args = []) {
  const began = performance.now();
  const child = spawn(process.execPath, ['--max-semi-space-size=64', SERVER, ...args], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      WAXWING_DATA: folder,
      WAXWING_KEYS: join(folder, 'keys'),
      PORT: '0',
      ...env,
    },
  });
  running.add(child);
  child.once('exit', () => running.delete(child));
  child.stderr.pipe(process.stderr);
  const [line] = await once(child.stdout, 'data');
  const address = /http:\S+/.exec(String(line))?.[0].replace('localhost', '127.0.0.1') ?? '';
  const took = performance.now() - began;
  if (door) await openDoor(address, door);
  return {
    address,
    child,
    took,
    stop: async () => {
      const gone = once(child, 'exit');
      child.kill('SIGTERM');
      await gone;
    },
  };
}

/** @param {string} folder */
const databaseIn = (folder) => join(folder, 'waxwing.sqlite');

/**
 * Fills a folder with so many events, and lets the server digest them.
 * @param {string} folder
 * @param {number} events
 * @returns {Promise<string>} the id of a client
 */
export async function fill(folder, events) {
  // The tables come from the server itself.
  await (await startOn(folder)).stop();
  const db = new Database(databaseIn(folder));
  db.pragma('synchronous = OFF');
  const sessions = Math.round(events / EVENTS);
  const clients = Math.max(2, Math.round(sessions / SESSIONS_EACH));
  const now = Date.now();
  let n = 0x1000000;
  const id = () => uuid((n += 1));
  const library = JSON.parse(
    /** @type {{ document: string }} */ (db.prepare(`SELECT document FROM movements WHERE id = 'goblet-squat'`).get())
      .document,
  );
  const fault = library.faults.find((/** @type {{ severity: string }} */ { severity }) => severity === 'fix');
  const insert = db.prepare(
    'INSERT INTO events (id, sessionId, clientId, document, receivedAt) VALUES (?, ?, ?, ?, ?)',
  );
  db.transaction(() => {
    for (let c = 0; c < clients; c += 1)
      db.prepare(
        `INSERT INTO clients (id, version, name, about, goal, healthNote, limits, kit, createdAt, updatedAt) VALUES (?, 1, ?, '', '', '', '[]', '[]', ?, ?)`,
      ).run(uuid(c + 1), `Client ${c + 1}`, new Date(now).toISOString(), new Date(now).toISOString());
    for (let s = 0; s < sessions; s += 1) {
      const clientId = uuid((s % clients) + 1);
      const sessionId = id();
      const began = now - Math.floor(((sessions - s) / sessions) * 730 * DAY) - DAY;
      const at = new Date(began).toISOString();
      let place = 0;
      let counter = 0;
      db.prepare('INSERT INTO sessions (id, startedAt, finishedAt, place, digested) VALUES (?, ?, ?, 0, 0)').run(
        sessionId,
        at,
        at,
      );
      db.prepare('INSERT INTO session_clients (sessionId, clientId) VALUES (?, ?)').run(sessionId, clientId);
      /**
       * @param {string} type
       * @param {object} data
       */
      const put = (type, data) => {
        const event = { id: id(), sessionId, clientId, counter: (counter += 1), at, type, data };
        place = Number(insert.run(event.id, sessionId, clientId, JSON.stringify(event), at).lastInsertRowid);
        return event.id;
      };
      let entryId = '';
      while (counter < EVENTS - 2) {
        if (counter % 12 === 0)
          entryId = put('movement-started', { movementId: MOVEMENTS[(s + counter) % MOVEMENTS.length], why: null });
        const setId = put('set-done', { entryId, side: 'both', amount: 8 + (s % 5), kg: 8, loadLabel: '8 kg' });
        put('effort-felt', { setId, effort: 'medium' });
      }
      if (fault) {
        const squat = put('movement-started', { movementId: 'goblet-squat', why: null });
        put('fault-seen', { entryId: squat, faultId: fault.id });
        const [correction] = fault.corrections;
        const given = put('correction-given', {
          entryId: squat,
          faultId: fault.id,
          correctionId: correction.id,
          addresses: [fault.id],
        });
        put('outcome-noted', { correctionEventId: given, outcome: s % 3 ? 'fixed' : 'same' });
      }
      put('session-finished', {});
      db.prepare('UPDATE sessions SET place = ? WHERE id = ?').run(place, sessionId);
    }
  })();
  db.pragma('wal_checkpoint(TRUNCATE)');
  db.close();
  const server = await startOn(folder);
  const look = new Database(databaseIn(folder), { readonly: true });
  const left = look.prepare('SELECT count(*) AS n FROM sessions WHERE digested <> place');
  while (/** @type {{ n: number }} */ (left.get()).n > 0) await pass(200);
  look.close();
  await server.stop();
  return uuid(1);
}

/**
 * Milliseconds of each of some requests.
 * @param {number} runs
 * @param {() => Promise<Response>} ask
 */
export async function timed(runs, ask) {
  /** @type {number[]} */
  const took = [];
  for (let i = 0; i < runs; i += 1) {
    const began = performance.now();
    const answer = await ask();
    await answer.arrayBuffer();
    if (!answer.ok) throw new Error(`${answer.url}: ${answer.status}`);
    took.push(performance.now() - began);
  }
  return took;
}

/**
 * A session in which taps can be made.
 * @param {string} address
 * @param {string} clientId
 */
export async function tapper(address, clientId) {
  const send = (/** @type {string} */ path, /** @type {unknown} */ body) =>
    fetch(`${address}/api${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  const started = await send('/sessions', { clientIds: [clientId], startedAt: new Date().toISOString() });
  const session = /** @type {{ id: string }} */ (await started.json());
  let counter = 0;
  return () =>
    send(`/sessions/${session.id}/events`, {
      events: [
        {
          id: crypto.randomUUID(),
          sessionId: session.id,
          clientId,
          counter: (counter += 1),
          at: new Date().toISOString(),
          type: 'note-written',
          data: { text: 'tap' },
        },
      ],
    });
}

/**
 * The figures of a studio of some age.
 * @param {string} folder
 * @param {string} clientId
 */
export async function figuresOf(folder, clientId) {
  const server = await startOn(folder);
  try {
    const api = `${server.address}/api`;
    const record = () => fetch(`${api}/clients/${clientId}/record`);
    const sets = () => fetch(`${api}/clients/${clientId}/sets`);
    await timed(5, record);
    await timed(5, sets);
    const records = await timed(41, record);
    const firstPages = await timed(41, sets);
    const tap = await tapper(server.address, clientId);
    let over = false;
    const reading = (async () => {
      while (!over) await timed(1, record);
    })();
    const taps = await timed(300, tap);
    over = true;
    await reading;
    const { rss } = memoryOf(server.child.pid ?? 0);
    return { start: server.took, records, firstPages, taps, rss };
  } finally {
    await server.stop();
  }
}

/** @param {number} pid */
function memoryOf(pid) {
  const text = readFileSync(`/proc/${pid}/status`, 'utf8');
  return { rss: Number(/VmRSS:\s+(\d+)/.exec(text)?.[1] ?? 0) / 1024 };
}
