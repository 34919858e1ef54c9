/** The figures of the door: what signing in and being known cost, and what a flood from elsewhere does to those at work. */
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import { setTimeout as pass } from 'node:timers/promises';

import { startOn } from './big-studio.mjs';
import { inFolder, median, p99 } from './measure.mjs';

const NAME = 'Owner';
const PASSPHRASE = 'eleven slates on the quay';
const PROXY = 'https://studio.example';
const TAPS = 400;
const SIGN_INS = 5;
const FLOOD_SECONDS = 8;
const FLOOD_A_SECOND = 200;

/** @typedef {Record<string, string>} Headers */
/** @typedef {{ status: number, headers: import('node:http').IncomingHttpHeaders, body: string }} Answer */

const agent = new Agent({ keepAlive: true });

/**
 * @param {string} address
 * @param {string} method
 * @param {string} path
 * @param {object | null} body
 * @param {Headers} headers
 * @returns {Promise<Answer>}
 */
const ask = (address, method, path, body, headers) =>
  new Promise((resolve, reject) => {
    const text = body === null ? '' : JSON.stringify(body);
    const sent = request(`${address}${path}`, {
      agent,
      method,
      headers: { ...headers, 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(text) },
    });
    sent.on('error', reject);
    sent.on('response', (answer) => {
      let said = '';
      answer.on('data', (piece) => (said += String(piece)));
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: said }));
    });
    sent.end(text);
  });

/**
 * Somebody who taps, as they are known.
 * @param {string} address
 * @param {Headers} headers
 * @returns {Promise<() => Promise<number>>} milliseconds of one tap
 */
async function tapping(address, headers) {
  const made = async (/** @type {string} */ path, /** @type {object} */ body) => {
    const answer = await ask(address, 'POST', path, body, headers);
    if (answer.status !== 201) throw new Error(`${path}: ${answer.status} ${answer.body}`);
    return /** @type {{ id: string }} */ (JSON.parse(answer.body)).id;
  };
  const clientId = await made('/api/clients', { name: 'Client' });
  const sessionId = await made('/api/sessions', { clientIds: [clientId], startedAt: new Date().toISOString() });
  let counter = 0;
  return async () => {
    const began = performance.now();
    const event = {
      id: crypto.randomUUID(),
      sessionId,
      clientId,
      counter: (counter += 1),
      at: new Date().toISOString(),
      type: 'session-paused',
      data: {},
    };
    const { status } = await ask(address, 'POST', `/api/sessions/${sessionId}/events`, { events: [event] }, headers);
    if (status !== 200) throw new Error(`a tap was answered ${status}`);
    return performance.now() - began;
  };
}

/** @param {() => Promise<number>} tap */
async function taps(tap) {
  /** @type {number[]} */
  const took = [];
  for (let i = 0; i < TAPS; i += 1) took.push(await tap());
  return took.slice(TAPS / 4);
}

/** @param {import('./measure.mjs').Row} row */
export const atTheDoor = (row) =>
  inFolder(async (folder) => {
    const open = await startOn(join(folder, 'open'));
    const unknown = median(await taps(await tapping(open.address, {})));
    await open.stop();

    // Who runs the studio is said on its own machine; from then on everybody comes through the proxy.
    const first = await startOn(join(folder, 'shut'), {}, { name: NAME, passphrase: PASSPHRASE, open: false });
    await first.stop();
    const shut = await startOn(join(folder, 'shut'), { WAXWING_PROXY: PROXY }, null);
    /** @type {Headers} */
    const headers = { Host: new URL(PROXY).host, 'X-Forwarded-For': '192.0.2.1' };
    /** @type {number[]} */
    const signIns = [];
    for (let i = 0; i < SIGN_INS; i += 1) {
      const began = performance.now();
      const { status, headers: said } = await ask(
        shut.address,
        'POST',
        '/api/door/sign-in',
        { name: NAME, passphrase: PASSPHRASE },
        headers,
      );
      if (status !== 204) throw new Error(`signing in was answered ${status}`);
      signIns.push(performance.now() - began);
      headers.Cookie = said['set-cookie']?.[0]?.split(';')[0] ?? '';
    }
    const { body } = await ask(shut.address, 'GET', '/api/door', null, headers);
    headers['X-Waxwing-Token'] = /** @type {{ token: string }} */ (JSON.parse(body)).token;
    const tap = await tapping(shut.address, headers);
    const known = median(await taps(tap));

    let refused = 0;
    let asked = 0;
    const until = performance.now() + FLOOD_SECONDS * 1000;
    const stranger = { Host: headers.Host ?? '', 'X-Forwarded-For': '192.0.2.99' };
    const flood = async () => {
      while (performance.now() < until) {
        asked += 1;
        void ask(shut.address, 'GET', '/api/clients', null, stranger).then(({ status }) => {
          if (status === 429) refused += 1;
        });
        await pass(1000 / FLOOD_A_SECOND);
      }
    };
    const flooding = flood();
    /** @type {number[]} */
    const meanwhile = [];
    while (performance.now() < until) {
      meanwhile.push(await tap());
      await pass(40);
    }
    await flooding;
    await shut.stop();
    console.log(`of ${asked} requests in ${FLOOD_SECONDS} s from elsewhere ${refused} were refused as too many`);
    row('knowing who taps, on top of a tap', known - unknown, 'ms', 1);
    row('signing in', median(signIns), 'ms', 500);
    row('a tap of others while one address asks 200 times a second, p99', p99(meanwhile), 'ms', 100);
    agent.destroy();
  });
