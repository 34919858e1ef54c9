/** What to say before anything goes wrong: one cue for each phase, in the wording that lands best with this client. */
import type { Cue, Movement } from '../movement/schema.js';
import { believe } from './evidence.js';
import type { Evidence } from './evidence-schema.js';

export interface TeachingCue {
  cue: Cue;
  /** This client's record with cues of that focus. */
  worked: number;
  tried: number;
}

/**
 * One cue a phase, in the order of the phases. Among cues of one phase the likeliest to work wins; the first written on a tie.
 * @param mayTouch without consent a cue that is given by touch is none
 */
export function teachingCues(movement: Movement, evidence: Evidence, now: string, mayTouch: boolean): TeachingCue[] {
  const beliefs = new Map(
    (['inward', 'outward', 'image'] as const).map((focus) => [
      focus,
      believe('', { kind: 'say', focus }, evidence, now),
    ]),
  );
  const chance = (cue: Cue): number => beliefs.get(cue.focus)?.chance ?? 0;
  return movement.phases.flatMap((phase) => {
    const [first, ...rest] = movement.cues.filter(
      (cue) => cue.phase === phase && (mayTouch || cue.channel !== 'touch'),
    );
    if (!first) return [];
    const cue = rest.reduce((best, next) => (chance(next) > chance(best) ? next : best), first);
    const { worked = 0, tried = 0 } = beliefs.get(cue.focus) ?? {};
    return [{ cue, worked, tried }];
  });
}
