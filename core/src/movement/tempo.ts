/**
 * A tempo is lower-pause-rise-pause in whole seconds: lowering gives way to the weight or to gravity, rising
 * works against it, the first pause is at the low end and the second at the high one, whichever of them a rep begins with.
 */
import type { DoseMode, Phase } from './vocabulary.js';

/** Parses `3-1-1-0`. @throws RangeError for anything else. */
export function parseTempo(tempo: string): readonly [lower: number, pause: number, rise: number, pause: number] {
  const match = /^(\d{1,2})-(\d{1,2})-(\d{1,2})-(\d{1,2})$/.exec(tempo);
  if (!match) throw new RangeError(`"${tempo}" is not a tempo`);
  return [Number(match[1]), Number(match[2]), Number(match[3]), Number(match[4])];
}

/** With which half of the tempo a rep begins. */
export type Begins = 'lower' | 'rise';

const HALVES: Partial<Record<Phase, Begins>> = {
  lower: 'lower',
  bottom: 'lower',
  rise: 'rise',
  pull: 'rise',
  jump: 'rise',
};

/** The half of the tempo that a phase belongs to; null for one that says neither. */
export const halfOf = (phase: Phase): Begins | null => HALVES[phase] ?? null;

/** A rep begins with what its phases name first of the two halves. A reach or a turn goes out on the first half. */
export const beginsWith = (phases: readonly Phase[]): Begins =>
  phases.map(halfOf).find((half) => half !== null) ?? 'lower';

/** Seconds in the order of the rep: going, in the turn, coming back, at home. */
export function inOrder(
  tempo: string,
  begins: Begins,
): readonly [go: number, turn: number, back: number, home: number] {
  const [lower, low, rise, high] = parseTempo(tempo);
  return begins === 'lower' ? [lower, low, rise, high] : [rise, high, lower, low];
}

/** The tempo with a longer pause in the turn of the rep, which is its hard place. */
export function longerTurn(tempo: string, begins: Begins, by = 1): string {
  const [lower, low, rise, high] = parseTempo(tempo);
  return (begins === 'lower' ? [lower, low + by, rise, high] : [lower, low, rise, high + by]).join('-');
}

/** Why a tempo cannot be one of a dose: reps take time, whatever else is left open. Null when it can. */
export const wrongTempo = ({ mode, tempo }: { mode: DoseMode; tempo: string }): string | null =>
  mode === 'reps' && parseTempo(tempo).every((seconds) => seconds === 0)
    ? 'must take at least a second for reps, such as 2-0-1-0'
    : null;
