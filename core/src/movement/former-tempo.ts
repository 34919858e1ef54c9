/**
 * Tempos as earlier versions wrote them: of a rep that begins with rising, the pause at the high end stood in the second place, which is that
 * of the low end.
 */
import { beginsWith } from './tempo.js';
import { PHASES } from './vocabulary.js';

/** Lifts that begin with rising and pause on the floor. */
const PAUSES_ON_THE_FLOOR = /deadlift/;

/** A tempo of a movement in today's order; one that is of today already, or is none, stays as it is. */
export function tempoToday(tempo: string, { id, phases }: { id: string; phases: readonly string[] }): string {
  const known = PHASES.filter((phase) => phases.includes(phase)).toSorted(
    (a, b) => phases.indexOf(a) - phases.indexOf(b),
  );
  const [, lower, low, rise, high] = /^(\d+)-(\d+)-(\d+)-(\d+)$/.exec(tempo) ?? [];
  const former = Number(low) > 0 && Number(high) === 0 && !PAUSES_ON_THE_FLOOR.test(id) && beginsWith(known) === 'rise';
  return former ? [lower, high, rise, low].join('-') : tempo;
}
