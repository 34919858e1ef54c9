/**
 * Making the set in hand harder without another weight: the levers in their order, as far as the movement has them. Those of the dose change
 * it; those of the ladder lead to the rung that pulls them. Nothing while something holds back.
 */
import { wrongParts } from '../dosage/parts.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import { beginsWith, inOrder, longerTurn, parseTempo } from '../movement/tempo.js';
import type { Lever } from '../movement/vocabulary.js';
import type { PlanLane } from '../planning/plan.js';
import { isOpen } from '../progress/fit.js';
import { windowFor } from '../progress/next-step.js';
import type { ChangedDose } from '../session/fold.js';
import { fitOf, type LaneView, movementOf } from './lane-view.js';
import { doseNow, heldNow } from './next.js';

export type Raise =
  | { lever: 'tempo' | 'pause' | 'rest' | 'reps'; dose: ChangedDose }
  | { lever: 'range' | 'leverLength' | 'base'; movementId: string };

/** Levers of the ladder that a raise goes by, under the name that it has here. */
const RUNGS: Readonly<Record<'range' | 'leverLength' | 'base', readonly Lever[]>> = {
  range: ['range', 'depth'],
  leverLength: ['leverLength'],
  base: ['base', 'assistance'],
};

/** Seconds beyond which slower, or a longer pause, is another exercise. */
const SLOWEST = 6;
const LONGEST_PAUSE = 4;
/** Less rest is a quarter less, in steps of five seconds, and never under twenty. */
const REST_STEP = 5;
const LEAST_REST = 20;

/** In the order: range, tempo, pause, lever length, base, less rest, more reps. */
export function raisesFor(view: LaneView): Raise[] {
  const { movement, step } = view;
  const dose = doseNow(view);
  if (!movement || !step || !dose || heldNow(view)) return [];
  return [
    ...rungBy(view, 'range'),
    ...(movement.dose.mode === 'reps' ? slower(dose, movement) : []),
    ...rungBy(view, 'leverLength'),
    ...rungBy(view, 'base'),
    ...lessRest(dose),
    ...more(dose, view),
  ];
}

function rungBy(view: LaneView, lever: 'range' | 'leverLength' | 'base'): Raise[] {
  const { movement, catalog } = view;
  const step = catalog.ladder.rungs.get(movement?.id ?? '')?.harder.find((one) => {
    const other = movementOf(view, one.to);
    return RUNGS[lever].includes(one.lever) && other !== undefined && isOpen(fitOf(view, other));
  });
  return step ? [{ lever, movementId: step.to }] : [];
}

const changed = ({ amount, load, tempo, parts }: PlanLane): ChangedDose => ({
  amount,
  load,
  tempo,
  ...(parts && { parts }),
});

function slower(dose: PlanLane, { phases }: MovementSummary): Raise[] {
  const [lower, ...others] = parseTempo(dose.tempo);
  const begins = beginsWith(phases);
  const [, pause] = inOrder(dose.tempo, begins);
  const at = (tempo: string, lever: 'tempo' | 'pause'): Raise[] => {
    const next = { ...changed(dose), tempo };
    return dose.parts && wrongParts(dose.parts, tempo) ? [] : [{ lever, dose: next }];
  };
  return [
    ...(lower + 2 <= SLOWEST ? at([lower + 2, ...others].join('-'), 'tempo') : []),
    ...(pause + 1 <= LONGEST_PAUSE ? at(longerTurn(dose.tempo, begins), 'pause') : []),
  ];
}

function lessRest(dose: PlanLane): Raise[] {
  const rest = Math.floor((dose.rest * 0.75) / REST_STEP) * REST_STEP;
  return rest >= LEAST_REST && rest < dose.rest ? [{ lever: 'rest', dose: { ...changed(dose), rest } }] : [];
}

function more(dose: PlanLane, { movement, programme }: LaneView): Raise[] {
  if (!movement || dose.parts) return [];
  const { high } = windowFor(movement, programme?.plan.purpose ?? 'strength');
  const by = movement.dose.mode === 'reps' ? 2 : 5;
  // Up to half beyond the usual end: more than that is another purpose.
  return dose.amount + by <= high * 1.5
    ? [{ lever: 'reps', dose: { ...changed(dose), amount: dose.amount + by } }]
    : [];
}
