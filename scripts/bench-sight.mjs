/** `npm run bench:sight`: what is read from landmarks of the figure, where the truth is known, by fault kind; with `film` from pictures of it. */
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';

import { ensureBuilt, ensureInstalled, ROOT } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
// Only now: these need what was installed.
const { motionOf } = await import('@waxwing/core/body');
const { readSeries, seriesOf } = await import('@waxwing/core/sight');
const { loadFaultKinds, loadFigures, loadLibrary } = await import('@waxwing/library');

const library = loadLibrary(join(ROOT, 'library/movements'));
const drawn = loadFigures(join(ROOT, 'library/figures'));
const kinds = loadFaultKinds(join(ROOT, 'library/fault-kinds.yaml')).filter(({ measure }) => measure);

const [what, most = 'all'] = process.argv.slice(2);
if (what === 'film') {
  const { benchFilm } = await import('./bench-sight-film.mjs');
  const again = most === 'again';
  await benchFilm(library, drawn, kinds, most === 'all' || again ? Infinity : Number(most), again);
  process.exit(0);
}

let state = 7;
const next = () => {
  state = (Math.imul(state, 1103515245) + 12345) & 0x7fffffff;
  return (state + 1) / 0x80000000;
};
const TREMBLE_CM = 0.7;
const noise = () => TREMBLE_CM * Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
const ROUNDS = 5;

/** @type {Map<string, { clips: number, hits: number, misses: number, wrong: number, clean: number, unsure: number }>} */
const table = new Map(kinds.map(({ id }) => [id, { clips: 0, hits: 0, misses: 0, wrong: 0, clean: 0, unsure: 0 }]));
const counts = { exact: 0, none: 0, off: 0, about: 0 };
/** Seconds by which the way there was off, of movements with one way there and one back. */
const late = [];
let took = 0;
let moments = 0;

for (const movement of library) {
  const figure = drawn.figures[movement.id];
  if (!figure || figure.cycle) continue;
  const motion = motionOf(drawn, figure, movement);
  if (motion.still) continue;
  /** @type {Map<string, import('@waxwing/core/body').Motion>} */
  const made = new Map();
  /** @param {string} id */
  const drawnWith = (id) => {
    // How long something takes is not drawn: who drops has no time for it.
    const kind = movement.faults.find((fault) => fault.id === id)?.kind;
    const tempo = movement.dose.tempo.replace(/^[0-9.]+/, '0');
    const known =
      made.get(id) ??
      (kind === 'drops'
        ? motionOf(drawn, figure, { ...movement, dose: { ...movement.dose, tempo } })
        : motionOf(drawn, figure, movement, { [id]: 1 }));
    made.set(id, known);
    return known;
  };
  const shown = movement.faults.filter(({ id, kind }) => figure.faults[id] && table.has(kind ?? ''));
  for (const view of /** @type {const} */ (['side', 'front'])) {
    const model = {
      motion,
      position: movement.position,
      tempo: movement.dose.tempo,
      usualTempo: movement.dose.tempo,
      /** @param {string} kind */
      faulty: (kind) => {
        const fault = movement.faults.find((one) => one.kind === kind && figure.faults[one.id]);
        return fault ? drawnWith(fault.id) : null;
      },
    };
    const asked = kinds.filter(({ id }) => movement.faults.some(({ kind }) => kind === id));
    const series = seriesOf(motion, { view, rounds: ROUNDS, noise });
    readSeries(series, model, asked);
    const began = performance.now();
    const clean = readSeries(series, model, asked);
    took += performance.now() - began;
    moments += series.times.length;
    const reps = clean?.reps.length ?? 0;
    // A round of an alternating movement is one rep of each side; from the side only the nearer one is seen.
    const exact = reps === ROUNDS || (reps === 2 * ROUNDS && movement.sides === 'alternating');
    counts[reps > 0 && clean?.count !== 'sure' ? 'about' : exact ? 'exact' : reps === 0 ? 'none' : 'off'] += 1;
    const [there, back] = [motion.segments[0], motion.segments.at(-1)];
    if (reps === ROUNDS && there && back && motion.keys.length === 2)
      for (const rep of clean?.reps ?? []) late.push(Math.abs(rep.there - there.seconds));
    for (const { kind, seen, judged } of clean?.answers ?? []) {
      const row = table.get(kind);
      if (!row) continue;
      row.wrong += seen.length;
      row.clean += judged - seen.length;
    }
    for (const { id, kind = '' } of shown) {
      const faulty = seriesOf(drawnWith(id), { view, rounds: ROUNDS, noise });
      const answer = readSeries(faulty, model, asked)?.answers.find((one) => one.kind === kind);
      const row = table.get(kind);
      if (!answer || !row || answer.cannot === 'view' || answer.cannot === 'position') continue;
      row.clips += 1;
      row.hits += answer.seen.length;
      row.misses += answer.judged - answer.seen.length;
      row.unsure += answer.amounts.length - answer.judged;
    }
  }
}

const share = (/** @type {number} */ part, /** @type {number} */ all) => (all === 0 ? '–' : (part / all).toFixed(2));
console.log('| fault kind | clips with it | sensitivity | specificity | reps near the border |');
console.log('|---|---|---|---|---|');
for (const [kind, { clips, hits, misses, wrong, clean, unsure }] of table)
  console.log(
    `| ${kind} | ${clips} | ${share(hits, hits + misses)} | ${share(clean, wrong + clean)} | ${share(unsure, hits + misses + unsure)} |`,
  );
const half = late.toSorted((a, b) => a - b)[Math.floor(late.length / 2)] ?? NaN;
console.log(
  `\nclips of ${ROUNDS} reps: ${counts.exact} counted exactly, ${counts.about} with no more than about so many, ${counts.none} without an answer, ${counts.off} wrong`,
  `\nthe way there is off by ${half.toFixed(2)} s (median of ${late.length} reps)`,
  `\n${((took / moments) * 900).toFixed(1)} ms for 60 s at 15 pictures a second`,
);
