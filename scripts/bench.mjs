/**
 * `npm run bench`: the figures that Waxwing holds itself to, on this machine. Each is printed as soon as it is known; a part that fails is named
 * and the others go on. `npm run bench -- door pages` measures those parts alone.
 */
import { performance } from 'node:perf_hooks';

import { ensureBuilt, ensureInstalled, ROOT } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
// Only now: these need what was installed.
const { startOn, stopAll } = await import('./big-studio.mjs');
const { inFolder, inDemo, inPage, median, p95 } = await import('./measure.mjs');

/** @typedef {import('./measure.mjs').Row} Row */

/** @param {Row} row */
async function starting(row) {
  /** @type {number[]} */
  const took = [];
  for (let i = 0; i < 7; i += 1)
    await inFolder(async (folder) => {
      const start = performance.now();
      const { address, stop } = await startOn(folder, {}, null, ['--demo']);
      await (await fetch(`${address}/api/studio`)).text();
      took.push((performance.now() - start) / 1000);
      await stop();
    });
  row('demo server answers after', median(took), 's', 2);
}

/** @param {Row} row */
async function onTheFloor(row) {
  const { longSession, openings, taps, timerDrift } = await import('./bench-floor.mjs');
  const { composedTaps, signalsOff } = await import('./bench-doses.mjs');
  row('drift of a timer over an hour with a hidden tab', timerDrift(), 'ms', 50);
  await inDemo(async (page, address) => {
    const id = await longSession(address, 5_000);
    row('a session of 5,000 events and four clients opens', median(await openings(page, address, id)), 'ms', 500);
    await page.goto(`${address}/floor/${await longSession(address, 0)}`);
    row('a tap until it shows, four lanes and timers, p95', p95(await taps(page)), 'ms', 50);
  });
  await inDemo(async (page, address) =>
    row(
      'a set logged until the next shows, four composed lanes, p95',
      p95(await composedTaps(page, address)),
      'ms',
      50,
    ),
  );
  await inDemo(async (page, address) =>
    row('signals against the wall clock after a hidden page', await signalsOff(page, address), 'ms', 20),
  );
}

/** @param {Row} row */
async function growing(row) {
  const { growingOld } = await import('./bench-stored.mjs');
  await inPage((page) => growingOld(row, page));
}

/** @param {Row} row */
async function takingALibraryIn(row) {
  const { takingIn } = await import('./bench-stored.mjs');
  const { packOf } = await import('@waxwing/core/formats');
  const { many } = await import('./many-movements.mjs');
  await takingIn(row, JSON.stringify(packOf(many)));
}

/** @type {readonly [name: string, measure: (row: Row) => unknown][]} */
const PARTS = [
  ['library', async (row) => (await import('./bench-core.mjs')).inTheLibrary(row)],
  ['order', async (row) => (await import('./bench-core.mjs')).inOrder(row)],
  ['plans', async (row) => (await import('./bench-core.mjs')).inPlans(row)],
  ['sessions', async (row) => (await import('./bench-core.mjs')).inSessions(row)],
  ['size', async (row) => (await import('./bench-size.mjs')).sizeOfThePage(row, ROOT)],
  ['start', starting],
  ['pages', async (row) => (await import('./bench-page.mjs')).amongMany(row)],
  ['floor', onTheFloor],
  ['desk', async (row) => inDemo(async (page, at) => (await import('./bench-desk.mjs')).atTheDesk(row, page, at))],
  ['door', async (row) => (await import('./bench-door.mjs')).atTheDoor(row)],
  ['import', takingALibraryIn],
  ['wrong', async (row) => (await import('./bench-stored.mjs')).goingWrong(row)],
  ['old', growing],
];

const asked = process.argv.slice(2);
const unknown = asked.filter((one) => !PARTS.some(([name]) => name === one));
if (unknown.length > 0) {
  console.error(`No part is called ${unknown.join(', ')}. There are: ${PARTS.map(([name]) => name).join(', ')}.`);
  process.exit(2);
}

/** @type {string[]} */
const over = [];
/** @type {string[]} */
const failed = [];
/** @type {Row} */
const row = (what, figure, unit, most) => {
  const ratio = most === 0 ? figure : figure / most;
  // What was not measured is not within anything.
  const within = most === 0 ? figure === 0 : ratio <= 1;
  if (!within) over.push(what);
  const words = [what, `${figure.toFixed(figure < 10 ? 2 : 0)} ${unit}`, `${most} ${unit}`, ratio.toFixed(2)];
  console.log(`| ${words.join(' | ')} |${within ? '' : ' over'}`);
};

const began = performance.now();
console.log('| figure | measured | allowed | ratio |\n| --- | ---: | ---: | ---: |');
for (const [name, measure] of PARTS) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  const start = performance.now();
  try {
    await measure(row);
  } catch (error) {
    failed.push(name);
    console.log(`| ${name}: failed | | | |`);
    console.error(error);
  } finally {
    await stopAll();
  }
  console.error(`${name}: ${Math.round((performance.now() - start) / 1000)} s`);
}
console.log(
  `\n${Math.round((performance.now() - began) / 60_000)} minutes. Over: ${over.join(' · ') || 'none'}. Failed: ${failed.join(', ') || 'none'}.`,
);
process.exitCode = over.length + failed.length > 0 ? 1 : 0;
