/**
 * `npm run bench:sight -- film [clips]`: the figure filmed and read back through the real model in a browser, by fault kind: clean, with
 * each fault that is drawn, small, dim, jittery, cut off, beside somebody else, walking in and out, and an empty room. About 20 s a clip.
 */
import { motionOf } from '@waxwing/core/body';
import { readSeries, seriesFrom, viewsOf } from '@waxwing/core/sight';
import { withFilm } from './film.mjs';

/** Of each kind so many movements. */
const OF_A_KIND = 3;
const ROUNDS = 4;
const TROUBLES = ['small', 'dim', 'jitter', 'cut', 'second', 'enters', 'empty'];
const TROUBLED = ['goblet-squat', 'push-up', 'standing-curl'];

/** @typedef {import('@waxwing/core/movement').Movement} Movement */
/** @typedef {{ movement: Movement, view: import('@waxwing/core/movement').View, fault: string | null, kind: string | null, trouble: string }} Case */

/**
 * @param {readonly Movement[]} library
 * @param {import('@waxwing/core/body').FigureLibrary} drawn
 * @param {readonly import('@waxwing/core/movement').FaultKind[]} kinds
 * @returns {Case[]}
 */
function casesOf(library, drawn, kinds) {
  /** @type {Case[]} */
  const cases = [];
  const able = library.filter(({ id, dose }) => {
    const figure = drawn.figures[id];
    return figure && !figure.cycle && dose.mode === 'reps';
  });
  for (const { id: kind, measure } of kinds) {
    if (!measure) continue;
    const view = viewsOf(measure.of).includes('side') ? 'side' : 'front';
    const having = able.flatMap((movement) => {
      const fault = movement.faults.find((one) => one.kind === kind && drawn.figures[movement.id]?.faults[one.id]);
      return fault && measure.positions.includes(movement.position) ? [{ movement, fault: fault.id }] : [];
    });
    for (const { movement, fault } of having.slice(0, OF_A_KIND))
      for (const one of [fault, null]) cases.push({ movement, view, fault: one, kind: one && kind, trouble: 'none' });
  }
  for (const movement of able.filter(({ id }) => TROUBLED.includes(id)))
    for (const trouble of TROUBLES)
      cases.push({
        movement,
        view: movement.id === 'goblet-squat' ? 'front' : 'side',
        fault: null,
        kind: null,
        trouble,
      });
  const known = new Set();
  return cases.filter(({ movement, view, fault, trouble }) => {
    const key = [movement.id, view, fault, trouble].join(' ');
    return !known.has(key) && known.add(key);
  });
}

/**
 * @param {readonly Movement[]} library
 * @param {import('@waxwing/core/body').FigureLibrary} drawn
 * @param {readonly import('@waxwing/core/movement').FaultKind[]} kinds
 * @param {number} most clips that are filmed
 */
export async function benchFilm(library, drawn, kinds, most) {
  /** @type {Map<string, { hits: number, misses: number, unsure: number, wrong: number, clean: number }>} */
  const table = new Map();
  const counts = { exact: 0, off: 0 };
  let millis = 0;
  const cases = casesOf(library, drawn, kinds).slice(0, most);
  await withFilm(async (page) => {
    for (const { movement, view, fault, kind, trouble } of cases) {
      const figure = drawn.figures[movement.id];
      if (!figure) continue;
      const scene = {
        library: drawn,
        movement,
        faults: fault ? { [fault]: 1 } : {},
        view,
        looks: null,
        rounds: ROUNDS,
        speed: 1.3,
        rate: 12,
        trouble,
      };
      const read = await page.evaluate(async (asked) => {
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
      const reading = readSeries(
        series,
        {
          motion: motionOf(drawn, figure, movement),
          position: movement.position,
          tempo: movement.dose.tempo,
          usualTempo: movement.dose.tempo,
          faulty: (one) => {
            const drawnFault = movement.faults.find((each) => each.kind === one && figure.faults[each.id]);
            return drawnFault ? motionOf(drawn, figure, movement, { [drawnFault.id]: 1 }) : null;
          },
        },
        own,
      );
      const reps = reading?.reps.length ?? 0;
      counts[reps === (trouble === 'empty' ? 0 : ROUNDS) ? 'exact' : 'off'] += 1;
      for (const answer of reading?.answers ?? []) {
        if (answer.cannot === 'view' || answer.cannot === 'position') continue;
        const row = table.get(answer.kind) ?? { hits: 0, misses: 0, unsure: 0, wrong: 0, clean: 0 };
        table.set(answer.kind, row);
        if (answer.kind === kind) {
          row.hits += answer.seen.length;
          row.misses += answer.judged - answer.seen.length;
          row.unsure += answer.amounts.length - answer.judged;
        } else if (!fault) {
          row.wrong += answer.seen.length;
          row.clean += answer.judged - answer.seen.length;
        }
      }
      console.log(`${movement.id}, ${view}, ${fault ?? 'clean'}, ${trouble}: ${reps} reps`);
    }
  });
  const share = (/** @type {number} */ part, /** @type {number} */ all) => (all === 0 ? '–' : (part / all).toFixed(2));
  console.log('\n| fault kind | reps with it | sensitivity | clean reps | specificity | near the border |');
  console.log('|---|---|---|---|---|---|');
  for (const [kind, { hits, misses, unsure, wrong, clean }] of table)
    console.log(
      `| ${kind} | ${hits + misses + unsure} | ${share(hits, hits + misses)} | ${wrong + clean} | ${share(clean, wrong + clean)} | ${share(unsure, hits + misses + unsure)} |`,
    );
  console.log(
    `\n${cases.length} clips of ${ROUNDS} reps: ${counts.exact} counted exactly, ${counts.off} not; ${millis.toFixed(0)} ms a picture`,
  );
}

/** @typedef {{ millis: number, sightings: { at: number, body: { flat: Float32Array, deep: Float32Array, seen: Float32Array, box: import('@waxwing/core/sight').Box } | null }[] }} Seen */
