/** `npm run bench`: the figures that Waxwing holds itself to, as medians on this machine. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { gzipSync } from 'node:zlib';

import { ensureBrowser, ensureBuilt, ensureInstalled, openDoor, ROOT, SERVER } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
// Only now: these need what was installed.
const { composedEvents, composedTaps, planOfAll, signalsOff } = await import('./bench-doses.mjs');
const { atTheDesk } = await import('./bench-desk.mjs');
const { longSession, openings, taps, timerDrift } = await import('./bench-floor.mjs');
const { atTheDoor } = await import('./bench-door.mjs');
const { goingWrong, growingOld, takingIn } = await import('./bench-stored.mjs');
const { assembled, bonesOf, frameAt, handsOf, motionOf, readSkin, restBody, roomFor, skinned } =
  await import('@waxwing/core/body');
const { packOf } = await import('@waxwing/core/formats');
const { buildCatalog, libraryHealth, SWAP_REASONS, substitutes } = await import('@waxwing/core/ladder');
const { buildKindFinder, kitCounts } = await import('@waxwing/core/movement');
const { loadsFor } = await import('@waxwing/core/dosage');
const { bestOrder, longSearch, orderCost, suggestSession, timelineOf, totalsOfPlan } =
  await import('@waxwing/core/planning');
const { fold } = await import('@waxwing/core/session');
const { loadFaultKinds, loadFigures, loadLibrary, loadSayings } = await import('@waxwing/library');

const MANY = 5_000;
const starter = loadLibrary(join(ROOT, 'library/movements'));

/**
 * A library of `size` movements: the starter library over and over, each copy with ladders of its own.
 * @param {number} size
 */
const library = (size) =>
  Array.from({ length: size }, (_, i) => {
    const movement = starter[i % starter.length];
    if (!movement) throw new Error('the starter library is empty');
    const copy = (/** @type {string} */ id) => `${id}-${Math.floor(i / starter.length)}`;
    const known = (/** @type {{ to: string }} */ { to }) =>
      starter.findIndex((m) => m.id === to) + Math.floor(i / starter.length) * starter.length < size;
    return {
      ...movement,
      id: copy(movement.id),
      name: `${movement.name} ${Math.floor(i / starter.length)}`,
      links: movement.links.filter(known).map((link) => ({ ...link, to: copy(link.to) })),
      faults: movement.faults.map((fault) => ({
        ...fault,
        corrections: fault.corrections.filter((c) => c.kind !== 'swap'),
      })),
    };
  });

/** @param {number[]} numbers */
const median = (numbers) => numbers.toSorted((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? NaN;

/** @param {number[]} numbers */
const p95 = (numbers) => numbers.toSorted((a, b) => a - b)[Math.floor(numbers.length * 0.95)] ?? NaN;

/** Unmeasured runs first: enough for every kind of query to have run twice. */
const WARM_UP = 14;

/**
 * Median milliseconds of `runs` calls after a few to warm up.
 * @param {number} runs
 * @param {(run: number) => unknown} act
 */
const time = async (runs, act) => median(await times(runs, act));

/**
 * @param {number} runs
 * @param {(run: number) => unknown} act
 */
async function times(runs, act) {
  /** @type {number[]} */
  const took = [];
  for (let run = -WARM_UP; run < runs; run += 1) {
    const start = performance.now();
    await act(run < 0 ? run + WARM_UP : run);
    if (run >= 0) took.push(performance.now() - start);
  }
  return took;
}

/** @type {{ what: string, figure: number, unit: string, most: number }[]} */
const rows = [];
/**
 * @param {string} what
 * @param {number} figure
 * @param {string} unit
 * @param {number} most
 */
const row = (what, figure, unit, most) => rows.push({ what, figure, unit, most });

const many = library(MANY);
const catalog = buildCatalog(many);
const kit = kitCounts([
  { item: 'dumbbell', count: 2, kg: 8 },
  { item: 'chair', count: 1 },
  { item: 'bench', count: 1 },
]);
/** @type {import('@waxwing/core/movement').Limit[]} */
const limits = [
  { demand: 'weight-on-wrist', allowed: 1, reason: 'wrist' },
  { demand: 'impact', allowed: 0, reason: 'knee' },
];
const query = (/** @type {number} */ run) =>
  substitutes(catalog, {
    from: many[(run * 37) % MANY]?.id ?? '',
    reason: SWAP_REASONS[run % SWAP_REASONS.length] ?? 'bored',
    region: 'knee',
    limits,
    kit,
  });
row('substitutes among 5,000 movements, p95', p95(await times(210, query)), 'ms', 5);
const finder = buildKindFinder(loadFaultKinds(join(ROOT, 'library/fault-kinds.yaml')));
row('health of 5,000 movements', await time(9, () => libraryHealth(many, finder.of)), 'ms', 300);

const drawn = loadFigures(join(ROOT, 'library/figures'));
const squat = starter.find(({ id }) => id === 'goblet-squat');
const figure = drawn.figures['goblet-squat'];
if (!squat || !figure) throw new Error('the goblet squat has no figure');
const motion = motionOf(drawn, figure, squat);
for (const build of ['broad', 'narrow']) {
  const bytes = readFileSync(join(ROOT, `body/baked/${build}.bin`));
  row(`skin of the ${build} build, gzip`, gzipSync(bytes, { level: 9 }).length / 1024, 'kB', 60);
  const file = readSkin(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
  const skin = assembled(file, { hands: handsOf(motion), hair: 'short' });
  const [rest, posed] = [restBody(), roomFor(skin)];
  row(
    `one frame of the ${build} build, posed and skinned`,
    await time(2_000, (run) => skinned(skin, bonesOf(frameAt(motion, run * 0.03).body, rest), posed)),
    'ms',
    2,
  );
}
row('all figures, gzip', gzipSync(JSON.stringify(drawn)).length / 1024, 'kB', 150);

const places = loadSayings(join(ROOT, 'library/sayings.yaml')).map(({ said, means }) =>
  finder.find(said).findIndex(({ kind }) => kind.id === means),
);
row('ways to name a fault whose kind does not come first', places.filter((at) => at !== 0).length, 'of 120', 5);
row('the same, not among the first three', places.filter((at) => at < 0 || at > 2).length, 'of 120', 0);

/** Handles and forty plates of ten weights. */
const plates = [0.5, 1, 1.25, 2, 2.5, 5, 7.5, 10, 15, 20].map((kg) => ({ kg, count: 4 }));
row(
  'loads of a kit with 40 plates',
  await time(50, () =>
    loadsFor(
      [{ needs: [{ item: 'dumbbell', count: 1 }] }],
      [{ item: 'dumbbell', count: 2, kg: 2, plates, changeSeconds: 30 }],
    ),
  ),
  'ms',
  20,
);

let seed = 7;
/** @param {number} most */
const pick = (most) => {
  seed = (seed * 1103515245 + 12345) & 0x7fffffff;
  return Math.floor((seed / 0x7fffffff) * most);
};
/**
 * An order to find: any changes between any two, and a fifth of the things better early.
 * @param {number} size
 * @returns {import('@waxwing/core/planning').OrderProblem}
 */
const orderOf = (size) => {
  const numbers = (/** @type {number} */ most) => Array.from({ length: size }, () => pick(most));
  const nothing = Array.from({ length: size }, () => null);
  return {
    size,
    first: numbers(30),
    step: Array.from({ length: size }, () => numbers(60)),
    place: Array.from({ length: size }, () => {
      const late = pick(5) === 0 ? 15 : 0;
      return Array.from({ length: size }, (_, at) => late * at);
    }),
    rounds: 1,
    locked: nothing,
    then: nothing,
    after: Array.from({ length: size }, () => []),
  };
};
const twelve = Array.from({ length: 9 }, () => orderOf(12));
row('best order of 12, exact', await time(9, (run) => bestOrder(twelve[run % 9] ?? orderOf(12))), 'ms', 200);
const thirty = Array.from({ length: 5 }, () => orderOf(30));
/** @type {number[]} */
const orderTook = [];
/** @type {number[]} */
const dearer = [];
for (const problem of thirty) {
  const start = performance.now();
  const best = bestOrder(problem) ?? [];
  orderTook.push(performance.now() - start);
  dearer.push((orderCost(problem, best) / orderCost(problem, longSearch(problem, 1_500) ?? []) - 1) * 100);
}
row('best order of 30', median(orderTook), 'ms', 500);
row('how much dearer than a search ten times as long', median(dearer), '%', 2);

const { levels } = catalog.ladder;
const movements = many.map((movement) => ({ ...movement, level: levels.get(movement.id) ?? 0 }));
let made = 0;
const newId = () => `018f0000-0000-7000-8000-${(made += 1).toString(16).padStart(12, '0')}`;
/** @type {import('@waxwing/core/client').PastSession[]} */
const lastWeek = [{ at: '2030-01-01T10:00:00.000Z', sets: [{ amount: 12, effort: 'medium', clean: true, kg: 8 }] }];
const four = Array.from({ length: 4 }, (_, i) => ({
  id: newId(),
  name: `Client ${i + 1}`,
  standing: { limits: i % 2 ? limits : [], hurtNow: [], hurtBefore: [], pain: false, ease: null, trainingYears: null },
  sets: Object.fromEntries(many.slice(i * 40, i * 40 + 20).map(({ id }) => [id, lastWeek])),
}));
/** @type {import('@waxwing/core/movement').KitPiece[]} */
const rack = [4, 6, 8, 10, 12.5, 15].map((kg) => ({ item: 'dumbbell', count: 2, kg }));
const ask = () =>
  suggestSession({
    minutes: 60,
    purpose: 'strength',
    clients: four,
    movements,
    kit: [...rack, { item: 'mat', count: 4 }, { item: 'bench', count: 1 }],
    space: 'lane',
    wanted: [],
    without: [],
    blocks: [],
    notThese: [],
    now: '2030-01-08T10:00:00.000Z',
    newId,
  });
row('60 minutes suggested for 4 clients over 5,000 movements', await time(5, ask), 'ms', 1_000);
const byMovement = new Map(movements.map((movement) => [movement.id, movement]));
const context = { find: (/** @type {string} */ id) => byMovement.get(id), knows: () => false };
const suggested = { blocks: ask().blocks, minutes: 60 };
row(
  'estimate of such a plan',
  await time(500, () => totalsOfPlan(suggested, context, timelineOf(suggested, context))),
  'ms',
  1,
);

const known = new Map(starter.map((movement) => [movement.id, { ...movement, level: 0 }]));
const allOfIt = planOfAll(four.map(({ id }) => id));
const ofAll = { find: (/** @type {string} */ id) => known.get(id), knows: () => false };
row(
  'minutes of a plan with parts, rounds, drops and clocks',
  await time(500, () => timelineOf(allOfIt, ofAll)),
  'ms',
  1,
);

const session = '018f0000-0000-7000-8000-0000000005e5';
const client = '018f0000-0000-7000-8000-00000000c11e';
const uuid = (/** @type {number} */ n) => `018f0000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`;
const events = Array.from({ length: 2_000 }, (_, i) => {
  const envelope = {
    id: uuid(i),
    sessionId: session,
    clientId: client,
    counter: i + 1,
    at: new Date(Date.UTC(2030, 0, 1) + i * 1000).toISOString(),
  };
  const entryId = uuid(i - (i % 50));
  /** @type {Record<number, object>} */
  const kinds = {
    0: { type: 'set-done', data: { entryId, side: 'both', amount: 10, kg: 8, loadLabel: null } },
    1: { type: 'effort-felt', data: { setId: uuid(i - 1), effort: 'medium' } },
    2: { type: 'fault-seen', data: { entryId, faultId: `fault-${i % 4}` } },
    3: {
      type: 'correction-given',
      data: { entryId, faultId: `fault-${i % 4}`, correctionId: 'say-it', addresses: [`fault-${i % 4}`] },
    },
    4: { type: 'undone', data: { eventId: uuid(i - 1) } },
  };
  const what =
    i % 50 === 0 ? { type: 'movement-started', data: { movementId: 'goblet-squat', why: null } } : kinds[i % 5];
  return /** @type {import('@waxwing/core/session').SessionEvent} */ ({ ...envelope, ...what });
});
// As they come from the server or from the device's own store: parsed, so that equal keys share a shape.
/** @type {typeof events} */
const received = JSON.parse(JSON.stringify(events));
row('fold of 2,000 events', await time(200, () => fold(received, [client])), 'ms', 5);
/** @type {typeof events} */
const composed = JSON.parse(JSON.stringify(composedEvents(2_000, session, client)));
row('fold of 2,000 events with parts', await time(200, () => fold(composed, [client])), 'ms', 5);

/**
 * Starts the built server and returns its address and how long the first answer took.
 * @param {string[]} args
 * @param {string} folder
 */
async function serve(args, folder) {
  const start = performance.now();
  const child = spawn(process.execPath, ['--max-semi-space-size=64', SERVER, ...args], {
    env: { ...process.env, WAXWING_DATA: folder, WAXWING_KEYS: join(folder, 'keys'), PORT: '0' },
  });
  child.stderr.pipe(process.stderr);
  const [line] = await once(child.stdout, 'data');
  const address = /http:\S+/.exec(String(line))?.[0].replace('localhost', '127.0.0.1') ?? '';
  await (await fetch(`${address}/api/studio`)).text();
  const took = performance.now() - start;
  await openDoor(address);
  const stop = async () => {
    child.kill();
    await once(child, 'exit');
  };
  return { address, took, stop };
}

/** @param {(folder: string) => Promise<void>} act */
async function inFolder(act) {
  const folder = mkdtempSync(join(tmpdir(), 'waxwing-bench-'));
  try {
    await act(folder);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/**
 * In the page of a demo studio of its own, where there is a browser.
 * @param {(page: import('@playwright/test').Page, address: string) => Promise<void>} act
 */
async function inDemo(act) {
  const browser = await launched();
  if (!browser) return;
  await inFolder(async (folder) => {
    const { address, stop } = await serve(['--demo'], folder);
    // A context of its own: what is measured may open a second page beside it.
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await act(await context.newPage(), address);
    await stop();
  });
  await browser.close();
}

/** @type {number[]} */
const starts = [];
for (let i = 0; i < 7; i += 1)
  await inFolder(async (folder) => {
    const { took, stop } = await serve(['--demo'], folder);
    starts.push(took / 1000);
    await stop();
  });
row('demo server answers after', median(starts), 's', 2);

await inFolder(async (folder) => {
  const { address, stop } = await serve([], folder);
  const start = performance.now();
  const fresh = packOf(many.filter((movement) => !starter.some(({ id }) => id === movement.id)));
  const look = await fetch(`${address}/api/imports?kind=pack`, { method: 'POST', body: JSON.stringify(fresh) });
  const { importId, rows: found } = /** @type {import('@waxwing/core/formats').ImportPreview} */ (await look.json());
  const take = found.map(({ id }) => id);
  const answer = await fetch(`${address}/api/imports/${importId}/apply`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ take }),
  });
  if (!(await answer.text()).includes('"finished"')) throw new Error('the import did not finish');
  row('a pack of 5,000 movements looked at and taken in', (performance.now() - start) / 1000, 's', 10);

  const get = (/** @type {string} */ path) => async () =>
    void (await (await fetch(`${address}/api/movements${path}`)).arrayBuffer());
  row('GET all of 5,000 movements', await time(40, get('')), 'ms', 50);
  row('GET the first 100 of 5,000', await time(40, get('?limit=100')), 'ms', 50);
  row('search among 5,000', await time(40, get('?q=knees+cave&limit=100')), 'ms', 50);
  await inBrowser(address);
  await stop();
});

/** A browser to measure in; null, and said so, where there is none. */
async function launched() {
  const executablePath = ensureBrowser();
  if (!executablePath) {
    console.error('No Chromium was found and none could be installed: the page was not measured.');
    return null;
  }
  const { chromium } = await import('@playwright/test');
  return chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] });
}

/**
 * What a trainer feels in the page with 5,000 movements.
 * @param {string} address
 */
async function inBrowser(address) {
  const browser = await launched();
  if (!browser) return;
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/library`);
  const box = page.getByRole('textbox', { name: 'Find a movement or a fault' });
  // Five letters to warm up, as everywhere in this table.
  await box.pressSequentially('squat');
  await page.locator('[data-words="squat"]').waitFor({ timeout: 60_000 });
  // From the keystroke until the rows that answer it are in the page, one letter after the other.
  const keystrokes = await page.evaluate(async () => {
    const input = /** @type {HTMLInputElement} */ (document.querySelector('header input'));
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set;
    const took = [];
    for (const query of ['knees fall in', 'goblet squat', 'single leg', 'push up', 'foot crosses behind', 'band row'])
      for (let end = 1; end <= query.length; end += 1) {
        const words = query.slice(0, end).trim();
        const shown = () => document.querySelector('[data-words]')?.getAttribute('data-words') === words;
        if (shown()) continue;
        const start = performance.now();
        set?.call(input, query.slice(0, end));
        input.dispatchEvent(new Event('input', { bubbles: true }));
        await new Promise((/** @type {(value?: unknown) => void} */ resolve) => {
          const watch = new MutationObserver(() => {
            if (!shown()) return;
            watch.disconnect();
            resolve();
          });
          watch.observe(document.body, { subtree: true, childList: true, attributes: true });
        });
        took.push(performance.now() - start);
        // The next letter comes when this answer is painted, as no finger is quicker than that.
        await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
      }
    return took;
  });
  row('a keystroke of a search among 5,000 in the page, p95', p95(keystrokes), 'ms', 16);

  await box.fill('');
  await page.locator('[aria-label="Movements"]').waitFor();
  const frames = await page.evaluate(async () => {
    const pane = /** @type {HTMLElement} */ (document.querySelector('[aria-label="Movements"]'));
    const took = [];
    let last = performance.now();
    for (let i = 0; i < 240; i += 1) {
      pane.scrollTop += 300;
      await new Promise(requestAnimationFrame);
      took.push(performance.now() - last);
      last = performance.now();
    }
    return took;
  });
  row('the longest frame while scrolling 5,000 movements', Math.max(...frames), 'ms', 50);

  /** @type {number[]} */
  const opened = [];
  for (let i = 0; i < 9; i += 1) {
    await page.goto(`${address}/library`);
    const link = page.locator('a[href^="/library/"]').filter({ hasText: 'Floor back extension' }).first();
    await link.waitFor();
    const start = performance.now();
    await link.click();
    await page.getByRole('link', { name: 'Edit', exact: true }).waitFor();
    opened.push(performance.now() - start);
  }
  row('a movement page after a click', median(opened), 'ms', 300);

  for (let i = 1; i <= 4; i += 1) await page.request.post(`${address}/api/clients`, { data: { name: `Client ${i}` } });
  await page.goto(`${address}/plan/new`);
  for (let i = 1; i <= 4; i += 1) await page.getByText(`Client ${i}`, { exact: true }).click();
  const make = page.getByRole('button', { name: 'Make the plan' });
  await make.isEnabled();
  const stalled = page.evaluate(async () => {
    let longest = 0;
    let last = performance.now();
    while (!document.querySelector('[aria-label="Tape"]') && location.pathname === '/plan/new') {
      await new Promise(requestAnimationFrame);
      longest = Math.max(longest, performance.now() - last);
      last = performance.now();
    }
    return longest;
  });
  await make.click();
  row('the longest frame while a session is suggested among 5,000', await stalled, 'ms', 100);
  await page.getByRole('region', { name: 'Tape' }).waitFor();

  await page.goto(`${address}/library/figures?family=bridge`);
  await page.getByRole('button', { name: 'Play all' }).click();
  await page.addStyleTag({
    content: `main ul.ruled { display: grid; grid-template-columns: repeat(5, 240px) }
      main ul.ruled > li { display: block } main ul.ruled > li:nth-child(n + 7), main ul.ruled > li > ul { display: none }
      main ul.ruled .h-36, main ul.ruled .h-36 > div { width: 240px; height: 300px }`,
  });
  await page.locator('main .h-36 canvas').nth(5).waitFor();
  const beats = await page.evaluate(async () => {
    const seconds = 2;
    await new Promise((resolve) => setTimeout(resolve, 500));
    const all = [];
    for (let i = 0; i < 5; i += 1) {
      const began = performance.now();
      let shown = 0;
      while (performance.now() - began < seconds * 1000) {
        await new Promise(requestAnimationFrame);
        shown += 1;
      }
      all.push((performance.now() - began) / shown);
    }
    return all;
  });
  row('a frame with six figures of 240 × 300 playing', median(beats), 'ms', 20);
  await browser.close();
}

row('drift of a timer over an hour with a hidden tab', timerDrift(), 'ms', 50);
await inDemo(async (page, address) => {
  const id = await longSession(address, 5_000);
  row('a session of 5,000 events and four clients opens', median(await openings(page, address, id)), 'ms', 500);
  await page.goto(`${address}/floor/${await longSession(address, 0)}`);
  row('a tap until it shows, four lanes and timers, p95', p95(await taps(page)), 'ms', 50);
});
await inDemo(async (page, address) => {
  row('a set logged until the next shows, four composed lanes, p95', p95(await composedTaps(page, address)), 'ms', 50);
});
await inDemo(async (page, address) => {
  row('signals against the wall clock after a hidden page', await signalsOff(page, address), 'ms', 20);
});
await inDemo((page, address) => atTheDesk(row, page, address));
await atTheDoor(row);
await takingIn(row, JSON.stringify(packOf(many)));
await goingWrong(row);
{
  const browser = await launched();
  await growingOld(row, async () => (await browser?.newPage({ viewport: { width: 1280, height: 800 } })) ?? null);
  await browser?.close();
}

/** @type {Record<string, { file: string, isEntry?: boolean, imports?: string[] }>} */
const manifest = JSON.parse(readFileSync(join(ROOT, 'web/dist/.vite/manifest.json'), 'utf8'));
/** @type {Set<string>} */
const initial = new Set();
const visit = (/** @type {string} */ key) => {
  if (initial.has(key)) return;
  initial.add(key);
  for (const other of manifest[key]?.imports ?? []) visit(other);
};
for (const [key, chunk] of Object.entries(manifest)) if (chunk.isEntry) visit(key);
const bytes = [...initial].reduce(
  (sum, key) => sum + gzipSync(readFileSync(join(ROOT, 'web/dist', manifest[key]?.file ?? ''))).length,
  0,
);
row('initial JavaScript, gzip', bytes / 1024, 'kB', 200);

console.log('| figure | median | allowed | ratio |\n| --- | ---: | ---: | ---: |');
for (const { what, figure, unit, most } of rows)
  console.log(
    `| ${what} | ${figure.toFixed(figure < 10 ? 2 : 0)} ${unit} | ${most} ${unit} | ${(most === 0 ? figure : figure / most).toFixed(2)} |`,
  );
