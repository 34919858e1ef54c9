/** Where a movement stands within a family: 1 for its easiest. Levels count along the whole ladder, which may join several families. */
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Pattern } from '../movement/vocabulary.js';

type Member = Pick<MovementSummary, 'id' | 'name' | 'families' | 'level' | 'pattern' | 'role'>;

/** What the body does, in the order in which a library is read. */
export const FAMILY_GROUPS = [
  'squat',
  'lunge',
  'hinge',
  'push',
  'pull',
  'carry',
  'trunk',
  'travel',
  'mobility',
  'stretch',
] as const;
export type FamilyGroup = (typeof FAMILY_GROUPS)[number];

export interface Family<M extends Member = Member> {
  family: string;
  group: FamilyGroup;
  /** The easiest first. */
  members: { movement: M; level: number }[];
  /** How many levels there are. */
  levels: number;
}

const TRUNK: readonly Pattern[] = ['brace', 'rotate'];

const groupOf = ({ role, pattern }: Member): FamilyGroup =>
  role === 'stretch'
    ? 'stretch'
    : role === 'mobility' || pattern === 'mobilise'
      ? 'mobility'
      : TRUNK.includes(pattern)
        ? 'trunk'
        : (pattern as FamilyGroup);

/** What most of its members are; of as many the one that is read first. */
function groupOfMost(members: readonly Member[]): FamilyGroup {
  const counts = new Map<FamilyGroup, number>();
  for (const member of members) counts.set(groupOf(member), (counts.get(groupOf(member)) ?? 0) + 1);
  return FAMILY_GROUPS.reduce((best, one) => ((counts.get(one) ?? 0) > (counts.get(best) ?? 0) ? one : best));
}

/** Families in the order of the body's patterns, then by name. A movement of two families is in both. */
export function familiesOf<M extends Member>(movements: readonly M[]): Family<M>[] {
  const byFamily = new Map<string, M[]>();
  for (const movement of movements)
    for (const family of movement.families) byFamily.set(family, [...(byFamily.get(family) ?? []), movement]);
  return [...byFamily]
    .map(([family, all]) => {
      const steps = [...new Set(all.map(({ level }) => level))].toSorted((a, b) => a - b);
      return {
        family,
        group: groupOfMost(all),
        levels: steps.length,
        members: all
          .map((movement) => ({ movement, level: steps.indexOf(movement.level) + 1 }))
          .toSorted((a, b) => a.level - b.level || a.movement.name.localeCompare(b.movement.name)),
      };
    })
    .toSorted(
      (a, b) =>
        FAMILY_GROUPS.indexOf(a.group) - FAMILY_GROUPS.indexOf(b.group) ||
        // Squats themselves before what is like them.
        Number(b.family === b.group) - Number(a.family === a.group) ||
        a.family.localeCompare(b.family),
    );
}
