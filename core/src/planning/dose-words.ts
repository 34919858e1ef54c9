/** A dose as it is read: on the Floor, in a plan, on a sheet. */
import { partsWords } from '../dosage/parts.js';
import type { DoseMode, Sides } from '../movement/vocabulary.js';
import { UNIT_WORDS } from '../movement/words.js';
import { laneBySet, type SetLane, timesOfSet } from './by-set.js';
import type { PlanLane } from './plan.js';

/** What one set is, without its weight: `10 reps`, `30 s`, `8 singles · hold 8 s`. */
export const amountWords = ({ amount, parts }: Pick<PlanLane, 'amount' | 'parts'>, mode: DoseMode): string =>
  parts ? partsWords(parts) : `${amount} ${UNIT_WORDS[mode]}`;

/** One set with its weight: `8 × 12 kg`, `30 s`, `10 reps`, `8 singles · hold 8 s, 12 kg`. */
export function doseWords(dose: Pick<PlanLane, 'amount' | 'load' | 'parts'>, mode: DoseMode): string {
  const { amount, load, parts } = dose;
  if (!load) return amountWords(dose, mode);
  if (parts) return `${partsWords(parts)}, ${load.label}`;
  return mode === 'reps' ? `${amount} × ${load.label}` : `${amount} ${UNIT_WORDS[mode]} × ${load.label}`;
}

/** What a set goes on with at once: `then at once 6 × 8 kg`; nothing where it does not. */
export const dropWords = ({ drops = [] }: Pick<PlanLane, 'drops'>): string =>
  drops.map(({ amount, load }) => `then at once ${amount} × ${load.label}`).join(', ');

/** The one value of all sets, or those of each where they differ. */
function eachOrOne(values: readonly string[], between: string): string {
  const [first = ''] = values;
  return values.every((value) => value === first) ? first : values.join(between);
}

/**
 * What differs from round to round, in words: `left, right, alternating`, `8 kg, 10 kg, 12 kg`. Empty where all are alike; amounts are in
 * `amountsWords`.
 */
export function roundsWords(lane: PlanLane, sets: number, nameOf: (movementId: string) => string): string[] {
  const all = laneBySet(lane, sets);
  const differing = (of: (one: SetLane) => string): string[] => {
    const values = all.map(of);
    return new Set(values).size > 1 ? [values.join(', ')] : [];
  };
  return [
    ...differing(({ movementId }) => nameOf(movementId)),
    ...(all.some(({ side }) => side !== undefined) ? [all.map(({ side }) => side ?? 'both sides').join(', ')] : []),
    ...differing(({ load }) => load?.label ?? 'no weight'),
    ...differing(({ tempo }) => tempo),
    ...differing(({ rest }) => `${rest} s rest`),
    ...(all.some(({ asClean }) => asClean) ? ['then as many as went clean'] : []),
  ];
}

/** The amounts of all sets: `10`, or `15-12-9` where they differ. */
export const amountsWords = (lane: PlanLane, sets: number): string =>
  eachOrOne(
    laneBySet(lane, sets).map(({ amount }) => String(amount)),
    '-',
  );

/** The sum of a line over its sets, as a trainer says it: `12 a side is 24`, `3 rounds of 30 is 90`; null where there is nothing to add up. */
export function sumWords(
  lane: PlanLane,
  sets: number,
  { mode, sides }: { mode: DoseMode; sides: Sides },
): string | null {
  const all = laneBySet(lane, sets);
  const first = all[0];
  if (!first) return null;
  const times = timesOfSet(sides, first.side);
  const alike = all.every(({ amount, side }) => amount === first.amount && timesOfSet(sides, side) === times);
  const total = all.reduce((sum, { amount, side }) => sum + amount * timesOfSet(sides, side), 0);
  const unit = mode === 'reps' ? '' : ` ${UNIT_WORDS[mode]}`;
  if (!alike) return `${total}${unit} in all`;
  const one = first.amount * times;
  const side = times === 2 ? `${first.amount} a side is ${one}${unit}` : null;
  const rounds = sets > 1 ? `${sets} rounds of ${one} is ${total}${unit}` : null;
  return side && rounds ? `${side}, ${rounds}` : (side ?? rounds);
}
