/** Rungs that somebody went down from on the floor: what they come back to once its sign is met. */
import type { Hurt, Move, PastSession } from '../client/history-schema.js';
import { type Ladder, reach } from '../ladder/graph.js';
import type { Step } from '../ladder/page.js';
import { isUp } from './held.js';

export interface ComeBack {
  movementId: string;
  /** The easier rung that was gone to. */
  to: string;
  /** When (ISO). */
  since: string;
}

/** Rungs down that one move may go. */
const FAR = 8;

/** A rung of its own ladder, or what stands lower in the same family though no link leads there. */
const isDown = (ladder: Ladder, from: string, to: string): boolean =>
  reach(ladder, from, ['easier'], FAR).has(to) || isUp(ladder, to, from);

/**
 * Movements that were left for an easier rung, because they were too much, and not done since; the latest first. What hurt is not among them: that is for a clinician.
 * @param moves in any order
 */
export function comeBacks(
  {
    moves = [],
    sets,
    hurt = [],
  }: {
    moves?: readonly Move[] | undefined;
    sets: Readonly<Record<string, readonly PastSession[]>>;
    hurt?: readonly Hurt[];
  },
  ladder: Ladder,
): ComeBack[] {
  const left = new Map<string, ComeBack>();
  for (const { from, to, at, aside } of moves.toSorted((a, b) => a.at.localeCompare(b.at))) {
    left.delete(to);
    if (from !== to && !aside && isDown(ladder, from, to)) left.set(from, { movementId: from, to, since: at });
  }
  return [...left.values()]
    .filter(({ movementId, since }) => !(sets[movementId] ?? []).some(({ at }) => at > since))
    .filter(({ movementId }) => !hurt.some((one) => one.movementId === movementId))
    .toSorted((a, b) => b.since.localeCompare(a.since));
}

/** The ways up from a movement, those first that lead to where somebody has been before, the shortest of them first. */
export function waysUp(
  ladder: Pick<Ladder, 'rungs'>,
  movementId: string,
  sets: Readonly<Record<string, readonly PastSession[]>>,
): Step[] {
  const steps = ladder.rungs.get(movementId)?.harder ?? [];
  if (steps.length < 2) return steps;
  const far = ({ to }: Step): number =>
    sets[to]
      ? 0
      : Math.min(FAR, ...[...reach(ladder, to, ['harder'], FAR)].flatMap(([id, way]) => (sets[id] ? way.length : [])));
  const distances = new Map(steps.map((step) => [step.to, far(step)]));
  return steps.toSorted((a, b) => (distances.get(a.to) ?? FAR) - (distances.get(b.to) ?? FAR));
}
