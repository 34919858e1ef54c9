/** Where a library is thin or wrong: every gap with its place, worst first, and a score for each family. */
import { type Proven, saysLess } from '../body/proven-demands.js';
import type { Movement } from '../movement/schema.js';
import { HOUSEHOLD, type KitItem, type Muscle, type Severity } from '../movement/vocabulary.js';
import { amountWords, demandWords, inWords } from '../movement/words.js';
import { breachesOf, type CoachingContext } from './coaching-rules.js';
import { buildLadder, CycleError, type Ladder, reach } from './graph.js';
import { HEALTH_KINDS, type HealthKind } from './health-kinds.js';
import type { FamilyHealth, Gap, Health } from './health-schema.js';
import { signAmount, signMismatch } from './readiness.js';

/** How much each gap costs, and how urgent it is. Starting guesses: safety first, then dead ends on the floor, then polish. */
export const HEALTH_WEIGHT: Readonly<Record<HealthKind, { points: number; severity: Severity }>> = {
  cycle: { points: 40, severity: 'stop' },
  'dead-end-without-kit': { points: 14, severity: 'fix' },
  'off-ladder': { points: 20, severity: 'fix' },
  'no-easier': { points: 14, severity: 'fix' },
  'demands-missing': { points: 16, severity: 'fix' },
  'no-cues': { points: 20, severity: 'fix' },
  'no-faults': { points: 16, severity: 'fix' },
  'fault-only-words': { points: 6, severity: 'polish' },
  'fault-unseen': { points: 6, severity: 'polish' },
  'only-inward-cues': { points: 6, severity: 'polish' },
  'unreachable-readiness': { points: 10, severity: 'fix' },
  'near-duplicate': { points: 6, severity: 'polish' },
  'figure-shows-more': { points: 14, severity: 'fix' },
  'swap-asks-more': { points: 14, severity: 'fix' },
  touch: { points: 12, severity: 'fix' },
  severity: { points: 8, severity: 'fix' },
  'demand-falls': { points: 8, severity: 'fix' },
  how: { points: 4, severity: 'polish' },
  feel: { points: 4, severity: 'polish' },
  caution: { points: 2, severity: 'polish' },
  views: { points: 3, severity: 'polish' },
  kind: { points: 3, severity: 'polish' },
  'spoken-cue': { points: 3, severity: 'polish' },
  'link-both-ways': { points: 2, severity: 'polish' },
  speakable: { points: 2, severity: 'polish' },
  telegram: { points: 2, severity: 'polish' },
  jargon: { points: 2, severity: 'polish' },
  focus: { points: 2, severity: 'polish' },
  count: { points: 3, severity: 'polish' },
  'sign-back': { points: 3, severity: 'polish' },
};

/** Below this no side shows a fault well enough to look for it there. */
const SEEN = 0.5;
/** Names that share this part of their words, in movements alike otherwise, are taken for the same movement twice. */
const ALIKE = 0.8;

const LEGS: ReadonlySet<Muscle> = new Set([
  'quads',
  'glutes',
  'hamstrings',
  'adductors',
  'outer-hips',
  'hip-flexors',
  'calves',
  'shins',
]);

const isGentle = ({ role }: Movement): boolean => role === 'stretch' || role === 'mobility';
/** Legs that work while the rest of the body sits may truly ask for nothing that is limited. */
const asksNothing = ({ role, position, muscles }: Movement): boolean =>
  role === 'drill' || (position === 'seated' && muscles.prime.every((muscle) => LEGS.has(muscle)));
const asks = ({ demands }: Movement): number => Object.values(demands).reduce((sum, amount) => sum + amount, 0);
/** What can be had lighter. */
const LOADS: readonly KitItem[] = ['band', 'dumbbell', 'jug', 'cable', 'rope'];
/** What is done sitting or lying on the side with a load is where its ladder may start: a lighter load is the step down. */
export const startsOnALoad = ({ position, kit }: Pick<Movement, 'position' | 'kit'>): boolean =>
  (position === 'seated' || position === 'side-lying') &&
  kit.some(({ needs }) => needs.some(({ item }) => LOADS.includes(item)));
const fitsAHome = ({ kit }: Movement): boolean =>
  kit.length === 0 || kit.some(({ needs }) => needs.every(({ item }) => HOUSEHOLD.includes(item)));

/**
 * Looks over a whole library in O(movements × links nearby).
 * @param kindOf the kind of a fault, where it is plain
 * @param shown what can be seen of each demand in the figure of a movement
 */
export function libraryHealth(
  movements: readonly Movement[],
  kindOf: CoachingContext['kindOf'],
  shown: (movement: Movement) => Proven = () => ({}),
): Health {
  const gaps: Gap[] = [];
  const byId = new Map(movements.map((movement) => [movement.id, movement]));
  const add = (movement: Movement, kind: HealthKind, message: string, path: string) =>
    gaps.push({ movementId: movement.id, name: movement.name, kind, message, path });

  let ladder: Ladder | undefined;
  try {
    ladder = buildLadder(movements);
    const gentlest = gentlestOf(movements);
    for (const movement of movements) ladderGaps(movement, ladder, byId, gentlest, add);
  } catch (error) {
    if (!(error instanceof CycleError)) throw error;
    const first = byId.get(error.path[0] ?? '');
    if (first) add(first, 'cycle', `Its links ${error.message}.`, 'links');
  }
  const context: CoachingContext = {
    kindOf,
    find: (id) => byId.get(id),
    harderThan: (id) => (ladder ? reach(ladder, id, ['harder'], movements.length) : new Set()),
  };
  for (const movement of movements) {
    contentGaps(movement, add);
    readinessGaps(movement, byId, add);
    for (const { demand, said, seen } of saysLess(movement.demands, shown(movement)))
      add(
        movement,
        'figure-shows-more',
        `Its figure shows ${demandWords(demand)} (${amountWords(seen)}), and it says: ${amountWords(said)}.`,
        `demands.${demand}`,
      );
    for (const { rule, path, message } of breachesOf(movement, context)) add(movement, rule, sentence(message), path);
  }
  for (const [a, b] of nearDuplicates(movements)) add(b, 'near-duplicate', `Nearly the same as ${a.name}.`, 'name');
  gaps.sort(
    (a, b) =>
      HEALTH_WEIGHT[b.kind].points - HEALTH_WEIGHT[a.kind].points ||
      HEALTH_KINDS.indexOf(a.kind) - HEALTH_KINDS.indexOf(b.kind) ||
      a.name.localeCompare(b.name),
  );
  return { gaps, families: familyScores(movements, gaps) };
}

type Add = (movement: Movement, kind: HealthKind, message: string, path: string) => void;

const sentence = (message: string): string => `${message.charAt(0).toUpperCase()}${message.slice(1)}.`;

/** The least that any movement of a family asks for. */
function gentlestOf(movements: readonly Movement[]): Map<string, number> {
  const least = new Map<string, number>();
  for (const movement of movements)
    for (const family of movement.families) least.set(family, Math.min(least.get(family) ?? Infinity, asks(movement)));
  return least;
}

function ladderGaps(
  movement: Movement,
  ladder: Ladder,
  byId: ReadonlyMap<string, Movement>,
  gentlest: ReadonlyMap<string, number>,
  add: Add,
): void {
  const rung = ladder.rungs.get(movement.id);
  if (!rung || isGentle(movement)) return;
  if (rung.easier.length + rung.harder.length === 0) {
    if (movement.progression === 'yes') add(movement, 'off-ladder', 'Has no easier and no harder version.', 'links');
  } else if (
    rung.easier.length === 0 &&
    !startsOnALoad(movement) &&
    movement.families.every((family) => asks(movement) > (gentlest.get(family) ?? 0))
  )
    add(movement, 'no-easier', 'Has no easier version, though its family holds gentler movements.', 'links');
  if (fitsAHome(movement)) return;
  const nearby = reach(ladder, movement.id, ['easier', 'sideways', 'harder'], 3);
  const way = [...nearby.keys()].some((id) => {
    const other = byId.get(id);
    return other !== undefined && fitsAHome(other);
  });
  if (!way)
    add(movement, 'dead-end-without-kit', 'Nothing within three links can be done with what a home has.', 'links');
}

function contentGaps(movement: Movement, add: Add): void {
  if (movement.cues.length === 0) add(movement, 'no-cues', 'Has no cues.', 'cues');
  else if (movement.cues.length > 1 && movement.cues.every((cue) => cue.focus === 'inward'))
    add(movement, 'only-inward-cues', 'Has only inward cues: add one about the room, or a picture.', 'cues');
  if (movement.faults.length === 0) add(movement, 'no-faults', 'Has no faults to look for.', 'faults');
  if (!isGentle(movement) && !asksNothing(movement) && Object.keys(movement.demands).length === 0)
    add(movement, 'demands-missing', 'Says of no demand how much it asks: limits cannot close it.', 'demands');
  movement.faults.forEach((fault, i) => {
    if (fault.corrections.every((correction) => correction.kind === 'say'))
      add(movement, 'fault-only-words', `“${fault.name}” has only words to correct it.`, `faults[${i}].corrections`);
    if (Math.max(...Object.values(fault.views)) < SEEN)
      add(movement, 'fault-unseen', `“${fault.name}” shows well from no side.`, `faults[${i}].views`);
  });
}

/** A sign that no prescribed dose of the movement to be ready in can meet. */
function readinessGaps(movement: Movement, byId: ReadonlyMap<string, Movement>, add: Add): void {
  movement.links.forEach((link, i) => {
    const sign = link.readyWhen;
    const from = link.direction === 'easier' ? byId.get(link.to) : movement;
    if (!sign || !from) return;
    const windows = Object.values(from.dose.windows);
    const most = Math.max(...windows.map((window) => window.high));
    const sets = Math.max(...windows.map((window) => window.sets[1]));
    const wanted = signAmount(sign);
    const wrongUnit = signMismatch(sign, from.dose.mode);
    const what = wrongUnit
      ? `is counted in ${wrongUnit}, but ${from.name} is not`
      : wanted > most
        ? `asks for ${wanted}, but no dose of ${from.name} goes over ${most}`
        : sign.sets > sets
          ? `asks for ${sign.sets} sets, but no dose of ${from.name} has more than ${sets}`
          : null;
    if (what)
      add(
        movement,
        'unreachable-readiness',
        `The sign for ${byId.get(link.to)?.name ?? link.to} ${what}.`,
        `links[${i}].readyWhen`,
      );
  });
}

const nameWords = (name: string): Set<string> => new Set(inWords(name.toLowerCase()).split(/\W+/).filter(Boolean));

/** Pairs of movements alike in pattern, position, sides and muscles whose names or aliases are the same or nearly so. */
function nearDuplicates(movements: readonly Movement[]): [Movement, Movement][] {
  const blocks = new Map<string, { movement: Movement; names: Set<string>[] }[]>();
  const pairs: [Movement, Movement][] = [];
  for (const movement of movements) {
    const { pattern, position, sides, muscles, dose } = movement;
    const key = [pattern, position, sides, dose.mode, [...muscles.prime].sort().join()].join('|');
    const block = blocks.get(key) ?? [];
    const names = [movement.name, ...movement.aliases].map(nameWords);
    const twin = block.find((other) => names.some((a) => other.names.some((b) => likeness(a, b) >= ALIKE)));
    if (twin) pairs.push([twin.movement, movement]);
    block.push({ movement, names });
    blocks.set(key, block);
  }
  return pairs;
}

/** Jaccard likeness of two names by their words. */
function likeness(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  let shared = 0;
  for (const word of a) if (b.has(word)) shared += 1;
  return shared / (a.size + b.size - shared || 1);
}

function familyScores(movements: readonly Movement[], gaps: readonly Gap[]): FamilyHealth[] {
  const points = new Map<string, { gaps: number; points: number }>();
  for (const gap of gaps) {
    const sum = points.get(gap.movementId) ?? { gaps: 0, points: 0 };
    points.set(gap.movementId, { gaps: sum.gaps + 1, points: sum.points + HEALTH_WEIGHT[gap.kind].points });
  }
  const families = new Map<string, { movements: number; gaps: number; points: number }>();
  for (const { id, families: own } of movements)
    for (const family of own) {
      const sum = families.get(family) ?? { movements: 0, gaps: 0, points: 0 };
      const mine = points.get(id) ?? { gaps: 0, points: 0 };
      families.set(family, {
        movements: sum.movements + 1,
        gaps: sum.gaps + mine.gaps,
        points: sum.points + mine.points,
      });
    }
  return [...families]
    .map(([family, sum]) => ({
      family,
      movements: sum.movements,
      gaps: sum.gaps,
      score: Math.max(0, Math.round(100 - sum.points / sum.movements)),
    }))
    .sort((a, b) => a.score - b.score || a.family.localeCompare(b.family));
}
