/** The figures of keeping: things that go wrong, studios that have grown old, and a library that is taken in while people tap. */
import { setTimeout as pass } from 'node:timers/promises';

import { figuresOf, fill, startOn, tapper } from './big-studio.mjs';
import { inFolder, median, p99 } from './measure.mjs';
import { soak } from './soak.mjs';

const FAULTS = 1_000;
const OLD = 1_000_000;
const YOUNG = 10_000;
const DEVICES = 4;
const TAP_MS = 200;

/** @typedef {import('./measure.mjs').Row} Row */

/** @param {Row} row */
export async function goingWrong(row) {
  const { taps, lost, twice, broken, happened } = await soak(FAULTS);
  console.log(`${taps} taps were acknowledged while this went wrong: ${JSON.stringify(happened)}`);
  row(`acknowledged taps lost in ${FAULTS} faults of eight kinds`, lost, 'taps', 0);
  row(`taps there twice after ${FAULTS} faults`, twice, 'taps', 0);
  row('databases that were not whole after a kill', broken, 'files', 0);
}

/**
 * @param {Row} row
 * @param {import('./measure.mjs').Page} page
 */
export async function growingOld(row, page) {
  const young = await inFolder(async (folder) => figuresOf(folder, await fill(folder, YOUNG)));
  await inFolder(async (folder) => {
    const clientId = await fill(folder, OLD);
    const old = await figuresOf(folder, clientId);
    row('the record of a client among 1,000,000 events', median(old.records), 'ms', 60);
    row('the first page of their sets', median(old.firstPages), 'ms', 50);
    row('a tap while a record is read, p99', p99(old.taps), 'ms', 60);
    row('start with 1,000,000 events', old.start / 1000, 's', 3);
    row('memory of the server then', old.rss, 'MB', 350);
    row('the record: 1,000,000 against 10,000 events', median(old.records) / median(young.records), 'times', 2);
    row('the sets: 1,000,000 against 10,000 events', median(old.firstPages) / median(young.firstPages), 'times', 2);
    row('a tap: 1,000,000 against 10,000 events', median(old.taps) / median(young.taps), 'times', 2);
    const server = await startOn(folder);
    /** @type {number[]} */
    const opened = [];
    for (let i = 0; i < 9; i += 1) {
      await page.goto(`${server.address}/people`);
      const link = page.locator(`a[href="/people/${clientId}"]`);
      await link.waitFor();
      const began = performance.now();
      await link.click();
      await page.getByRole('heading', { name: 'Rungs now' }).waitFor();
      await page.getByRole('link', { name: 'Goblet squat' }).first().waitFor();
      opened.push(performance.now() - began);
    }
    row('the page of a person among 1,000,000 events', median(opened), 'ms', 400);
    await server.stop();
  });
}

/**
 * Four devices tap while a library is taken in.
 * @param {Row} row
 * @param {string} pack
 */
export async function takingIn(row, pack) {
  await inFolder(async (folder) => {
    const { address, stop } = await startOn(folder);
    /** @type {number[]} */
    const took = [];
    let over = false;
    const devices = Array.from({ length: DEVICES }, async (_, i) => {
      const answer = await fetch(`${address}/api/clients`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ name: `Client ${i}` }),
      });
      const { id } = /** @type {{ id: string }} */ (await answer.json());
      const tap = await tapper(address, id);
      await pass((i * TAP_MS) / DEVICES);
      while (!over) {
        const began = performance.now();
        const stored = await tap();
        await stored.arrayBuffer();
        if (!stored.ok) throw new Error(`a tap was answered ${stored.status}`);
        took.push(performance.now() - began);
        await pass(Math.max(0, TAP_MS - (performance.now() - began)));
      }
    });
    await pass(2_000);
    const began = performance.now();
    const look = await fetch(`${address}/api/imports?kind=pack`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: pack,
    });
    const { importId, rows } = /** @type {import('@waxwing/core/formats').ImportPreview} */ (await look.json());
    const answer = await fetch(`${address}/api/imports/${importId}/apply`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ take: rows.map(({ id }) => id) }),
    });
    if (!(await answer.text()).includes('"finished"')) throw new Error('the import did not finish');
    console.log(`taken in after ${Math.round(performance.now() - began)} ms, ${took.length} taps meanwhile`);
    over = true;
    await Promise.all(devices);
    row('a tap while 5,000 movements are taken in, four devices, p99', p99(took), 'ms', 150);
    await stop();
  });
}
