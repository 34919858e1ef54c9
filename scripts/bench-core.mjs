/** The figures of what is computed without a server: ladders, figures, orders, suggestions, folds. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { gzipSync } from 'node:zlib';

import { composedEvents, planOfAll } from './bench-doses.mjs';
import { MANY, many, starter } from './many-movements.mjs';
import { median, p95, time, times } from './measure.mjs';
import { ROOT } from './prepare.mjs';

const { assembled, bonesOf, frameAt, handsOf, motionOf, readSkin, restBody, roomFor, skinned } =
  await import('@waxwing/core/body');
const { buildCatalog, libraryHealth, SWAP_REASONS, substitutes } = await import('@waxwing/core/ladder');
const { buildKindFinder, kitCounts, openOptions } = await import('@waxwing/core/movement');
const { loadsFor } = await import('@waxwing/core/dosage');
const { bestOrder, longSearch, orderCost, suggestSession, timelineOf, totalsOfPlan } =
  await import('@waxwing/core/planning');
const { proposedLimits } = await import('@waxwing/core/client');
const { fold } = await import('@waxwing/core/session');
const { loadConditions, loadFaultKinds, loadFigures, loadSayings } = await import('@waxwing/library');

/** @typedef {import('./measure.mjs').Row} Row */

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
/** @type {import('@waxwing/core/movement').Limit[]} */
const sixConditions = [];
for (const condition of loadConditions(join(ROOT, 'library/conditions.yaml'))
  .filter(({ kind }) => kind === 'with-limits')
  .slice(0, 6))
  sixConditions.push(...proposedLimits(condition, sixConditions, '2030-01-01'));

/** @param {Row} row */
export async function inTheLibrary(row) {
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

  row(
    'limits asked of 400 movements for somebody with six conditions',
    await time(200, () => starter.slice(0, 400).map((movement) => openOptions(movement, sixConditions, kit))),
    'ms',
    1,
  );
  const began = performance.now();
  execFileSync(process.execPath, [join(ROOT, 'library/dist/check.js')]);
  row('the whole library checked', (performance.now() - began) / 1000, 's', 60);

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
}

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
/** @param {Row} row */
export async function inOrder(row) {
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
}

/** @param {Row} row */
export async function inPlans(row) {
  const { levels } = catalog.ladder;
  const movements = many.map((movement) => ({ ...movement, level: levels.get(movement.id) ?? 0 }));
  let made = 0;
  const newId = () => `018f0000-0000-7000-8000-${(made += 1).toString(16).padStart(12, '0')}`;
  /** @type {import('@waxwing/core/client').PastSession[]} */
  const lastWeek = [{ at: '2030-01-01T10:00:00.000Z', sets: [{ amount: 12, effort: 'medium', clean: true, kg: 8 }] }];
  const four = Array.from({ length: 4 }, (_, i) => ({
    id: newId(),
    name: `Client ${i + 1}`,
    standing: {
      limits: i % 2 ? limits : [],
      hurtNow: [],
      hurtBefore: [],
      pain: false,
      ease: null,
      trainingYears: null,
      day: null,
    },
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
}

/** @param {Row} row */
export async function inSessions(row) {
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
}
