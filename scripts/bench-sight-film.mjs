/**
 * `npm run bench:sight -- film [clips | again]`: the figure filmed and read back through the real model in a browser, by fault kind: clean,
 * with each fault that is drawn, in part and whole and by several people, small, dim, jittery, cut off, beside somebody else, walking in
 * and out, and an empty room. About 20 s a clip. With `again` what was read of a clip last time is judged anew, and only the rest filmed.
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

import { motionOf } from '@waxwing/core/body';
import { readSeries, seriesFrom, seriesOf, viewsOf } from '@waxwing/core/sight';

import { withFilm } from './film.mjs';
import { ROOT } from './prepare.mjs';

const READ = join(ROOT, 'node_modules/.cache/waxwing-film-read');

/** Of each kind so many movements. */
const OF_A_KIND = 3;
const ROUNDS = 4;
/** Shares of a fault that are filmed of one movement of a kind besides the whole, each on one of two people in turn. */
const PARTS = [0.25, 0.5, 0.75];
const PEOPLE = /** @type {const} */ (['narrow-deep', 'broad-fair']);
const TROUBLES = ['small', 'dim', 'jitter', 'cut', 'second', 'enters', 'empty'];
const TROUBLED = ['goblet-squat', 'push-up', 'standing-curl'];

/** @typedef {import('@waxwing/core/movement').Movement} Movement */
/** @typedef {import('@waxwing/core/body').FigureLibrary} FigureLibrary */
/** @typedef {import('@waxwing/core/movement').View} View */
/** @typedef {{ movement: Movement, view: View, fault: string | null, amount: number, looks: import('@waxwing/core/movement').Looks | null, kind: string | null, trouble: string }} Case */

/**
 * A movement whose way down takes less by a share of it.
 * @param {Movement} movement
 * @param {number} share
 * @returns {Movement}
 */
const inLess = (movement, share) => ({
  ...movement,
  dose: {
    ...movement.dose,
    tempo: movement.dose.tempo.replace(/^[0-9.]+/, (lower) => String(Math.round(Number(lower) * (1 - share)))),
  },
});

/**
 * A movement, and how it should be done.
 * @param {FigureLibrary} drawn
 * @param {FigureLibrary['figures'][string]} figure
 * @param {Movement} movement
 * @returns {import('@waxwing/core/sight').Shown}
 */
const shownOf = (drawn, figure, movement) => ({
  motion: motionOf(drawn, figure, movement),
  position: movement.position,
  tempo: movement.dose.tempo,
  usualTempo: movement.dose.tempo,
  faulty: (kind) => {
    const fault = movement.faults.find((one) => one.kind === kind && figure.faults[one.id]);
    return fault ? motionOf(drawn, figure, movement, { [fault.id]: 1 }) : null;
  },
});

/**
 * @param {readonly Movement[]} library
 * @param {FigureLibrary} drawn
 * @param {readonly import('@waxwing/core/movement').FaultKind[]} kinds
 * @returns {Case[]}
 */
function casesOf(library, drawn, kinds) {
  /** @type {Case[]} */
  const cases = [];
  /** Whether a fault can be told from there at all: it can of the landmarks of the figure. */
  const toldOf = (/** @type {Movement} */ movement, /** @type {string} */ id, /** @type {View} */ view) => {
    const figure = drawn.figures[movement.id];
    const fault = movement.faults.find((one) => one.id === id);
    if (!figure || !fault) return false;
    const series = seriesOf(motionOf(drawn, figure, movement), { view, rounds: 2 });
    const kind = kinds.filter((one) => one.id === fault.kind);
    return readSeries(series, shownOf(drawn, figure, movement), kind)?.answers[0]?.cannot === null;
  };
  const able = library.filter(({ id, dose }) => {
    const figure = drawn.figures[id];
    return figure && !figure.cycle && dose.mode === 'reps';
  });
  for (const { id: kind, measure } of kinds) {
    if (!measure) continue;
    const view = viewsOf(measure.of).includes('side') ? 'side' : 'front';
    const having = able.flatMap((movement) => {
      const fault = movement.faults.find((one) => one.kind === kind && drawn.figures[movement.id]?.faults[one.id]);
      return fault && toldOf(movement, fault.id, view) ? [{ movement, fault: fault.id }] : [];
    });
    for (const { movement, fault } of having.slice(0, OF_A_KIND))
      for (const one of [fault, null])
        cases.push({ movement, view, fault: one, amount: 1, looks: null, kind: one && kind, trouble: 'none' });
    const [first] = having;
    if (first)
      for (const [i, amount] of PARTS.entries())
        cases.push({ ...first, view, amount, looks: PEOPLE[i % 2] ?? null, kind, trouble: 'none' });
  }
  for (const movement of able.filter(({ id }) => TROUBLED.includes(id)))
    for (const trouble of TROUBLES)
      cases.push({
        movement,
        view: movement.id === 'goblet-squat' ? 'front' : 'side',
        fault: null,
        amount: 1,
        looks: null,
        kind: null,
        trouble,
      });
  const known = new Set();
  return cases.filter(({ movement, view, fault, amount, trouble }) => {
    const key = [movement.id, view, fault, amount, trouble].join(' ');
    return !known.has(key) && known.add(key);
  });
}

/**
 * @param {readonly Movement[]} library
 * @param {FigureLibrary} drawn
 * @param {readonly import('@waxwing/core/movement').FaultKind[]} kinds
 * @param {number} most clips that are filmed
 * @param {boolean} again whether what was read before counts
 */
export async function benchFilm(library, drawn, kinds, most, again) {
  mkdirSync(READ, { recursive: true });
  /** @type {Map<string, { hits: number, misses: number, unsure: number, wrong: number, clean: number }>} */
  const table = new Map();
  /** How many reps with a part of a fault were said to have it, of those that were judged. */
  const parts = new Map(PARTS.map((amount) => [amount, { seen: 0, judged: 0, near: 0 }]));
  const counts = { exact: 0, none: 0, off: 0, about: 0 };
  let millis = 0;
  const cases = casesOf(library, drawn, kinds).slice(0, most);
  await withFilm(async (page) => {
    for (const { movement, view, fault, amount, looks, kind, trouble } of cases) {
      const figure = drawn.figures[movement.id];
      if (!figure) continue;
      const scene = {
        library: drawn,
        // How long something takes is not drawn: who drops has so much less time for it.
        movement: kind === 'drops' ? inLess(movement, amount) : movement,
        faults: fault && kind !== 'drops' ? { [fault]: amount } : {},
        view,
        looks,
        rounds: ROUNDS,
        speed: 1.3,
        rate: 12,
        trouble,
      };
      const file = join(
        READ,
        `${[movement.id, view, fault ?? 'clean', amount, looks ?? 'mixed', trouble].join('.')}.json`,
      );
      /** @type {Read} */
      const read = again && existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : await filmed(page, scene);
      writeFileSync(file, JSON.stringify(read));
      millis += read.took / cases.length;
      const series = seriesFrom(
        read.sightings.map(({ at, body }) => ({
          at,
          body: body && {
            flat: Float32Array.from(body.flat),
            deep: Float32Array.from(body.deep),
            seen: Float32Array.from(body.seen),
            box: body.box,
          },
        })),
      );
      const own = kinds.filter(({ id, measure }) => measure && movement.faults.some((one) => one.kind === id));
      const reading = readSeries(series, shownOf(drawn, figure, movement), own);
      const reps = reading?.reps.length ?? 0;
      // From the side only the nearer limb of an alternating movement is seen: every other round.
      const right = trouble === 'empty' ? [0] : movement.sides === 'alternating' ? [ROUNDS, ROUNDS / 2] : [ROUNDS];
      const sure = reading?.count === 'sure';
      counts[reps > 0 && !sure ? 'about' : right.includes(reps) ? 'exact' : reps === 0 ? 'none' : 'off'] += 1;
      for (const answer of reading?.answers ?? []) {
        if (answer.cannot === 'view' || answer.cannot === 'position') continue;
        const part = answer.kind === kind ? parts.get(amount) : undefined;
        if (part) {
          part.seen += answer.seen.length;
          part.judged += answer.judged;
          part.near += answer.amounts.length - answer.judged;
          continue;
        }
        const row = table.get(answer.kind) ?? { hits: 0, misses: 0, unsure: 0, wrong: 0, clean: 0 };
        table.set(answer.kind, row);
        if (answer.kind === kind) {
          row.hits += answer.seen.length;
          row.misses += answer.judged - answer.seen.length;
          row.unsure += answer.amounts.length - answer.judged;
        } else if (!fault) {
          if (answer.seen.length > 0) console.log(`  ${answer.kind} was seen where it is not`);
          row.wrong += answer.seen.length;
          row.clean += answer.judged - answer.seen.length;
        }
      }
      console.log(
        `${movement.id}, ${view}, ${fault ? `${fault} × ${amount}` : 'clean'}, ${trouble}: ${reps > 0 && !sure ? 'about ' : ''}${reps} reps`,
      );
    }
  });
  const share = (/** @type {number} */ part, /** @type {number} */ all) => (all === 0 ? '–' : (part / all).toFixed(2));
  console.log('\n| fault kind | reps with it | sensitivity | clean reps | specificity | near the border |');
  console.log('|---|---|---|---|---|---|');
  for (const [kind, { hits, misses, unsure, wrong, clean }] of table)
    console.log(
      `| ${kind} | ${hits + misses + unsure} | ${share(hits, hits + misses)} | ${wrong + clean} | ${share(clean, wrong + clean)} | ${share(unsure, hits + misses + unsure)} |`,
    );
  console.log('\n| part of the fault | reps judged | said to have it | near the border |');
  console.log('|---|---|---|---|');
  for (const [amount, { seen, judged, near }] of parts)
    console.log(`| ${amount} | ${judged} | ${share(seen, judged)} | ${near} |`);
  console.log(
    `\n${cases.length} clips of ${ROUNDS} reps: ${counts.exact} counted exactly, ${counts.about} with no more than about so many, ${counts.none} without an answer, ${counts.off} wrong; ${millis.toFixed(0)} ms a picture`,
  );
}

/**
 * @param {import('@playwright/test').Page} page
 * @param {object} scene
 * @returns {Promise<Read>}
 */
function filmed(page, scene) {
  return page.evaluate(async (asked) => {
    const film = /** @type {{ film: { read: (scene: unknown) => Promise<Seen> } }} */ (
      /** @type {unknown} */ (globalThis)
    ).film;
    const { sightings, millis: took } = await film.read(asked);
    return {
      took,
      sightings: sightings.map(({ at, body }) => ({
        at,
        body: body && { flat: [...body.flat], deep: [...body.deep], seen: [...body.seen], box: body.box },
      })),
    };
  }, scene);
}

/** @typedef {{ took: number, sightings: { at: number, body: { flat: number[], deep: number[], seen: number[], box: import('@waxwing/core/sight').Box } | null }[] }} Read */
/** @typedef {{ millis: number, sightings: { at: number, body: { flat: Float32Array, deep: Float32Array, seen: Float32Array, box: import('@waxwing/core/sight').Box } | null }[] }} Seen */
