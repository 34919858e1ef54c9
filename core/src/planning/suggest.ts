/**
 * A session, suggested: which patterns, which rung for whom, in what dose and order, to fill the slot and no more.
 * A beam search over slots; limits are never bent, and every choice says why. Locked items stay as they are.
 */
import type { DayKind } from '../client/client.js';
import type { Move, PastSession } from '../client/history-schema.js';
import type { DueTest } from '../client/tests.js';
import { loadsFor } from '../dosage/loads.js';
import { buildLadder, type Ladder, reach } from '../ladder/graph.js';
import { canonical } from '../movement/difference.js';
import { kitCounts } from '../movement/kit.js';
import type { KitPiece } from '../movement/kit-schema.js';
import { fitWith, type LimitMet, type Openness } from '../movement/limits.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import {
  type Muscle,
  MUSCLES,
  type Pattern,
  type Plane,
  type Purpose,
  type Space,
  SPACES,
} from '../movement/vocabulary.js';
import { comeBacks } from '../progress/come-back.js';
import { fitNow, isOpen } from '../progress/fit.js';
import { mayNotStrain } from '../progress/held.js';
import { windowFor } from '../progress/next-step.js';
import { heldBetween } from '../progress/next-time.js';
import type { Standing } from '../progress/standing.js';
import { type Balance, balanceOf, missing, moreForDay, type Part } from './balance.js';
import { laneFor, type LaneRequest } from './lane-for.js';
import { orderPlan } from './order-plan.js';
import { goesOverhead, warmsShoulders } from './overhead.js';
import {
  type Block,
  BLOCK_KINDS,
  type BlockKind,
  isAround,
  mapItem,
  type PlanContext,
  type PlanItem,
  type PlanLane,
} from './plan.js';
import type { LineReason, PICKED } from './reason.js';
import { shortagesOf } from './shortage.js';
import { secondsOf, timelineOf } from './timeline.js';
import { type Fix, warningsOf, type Wrong } from './warnings.js';

export interface SuggestClient {
  id: string;
  name: string;
  standing: Standing;
  /** Sessions by movement. */
  sets: Readonly<Record<string, readonly PastSession[]>>;
  /** How their day is mostly spent; null where nobody knows. */
  day?: DayKind | null;
  /** What the latest session left for the next one. */
  left?: readonly string[];
  /** Tests that are due, the longest ago first. */
  tests?: readonly DueTest[];
  /** Swaps made on the floor: the rung that somebody went to is the one to go on with. */
  moves?: readonly Move[];
}

export interface SuggestRequest {
  minutes: number;
  purpose: Purpose;
  clients: readonly SuggestClient[];
  movements: readonly MovementSummary[];
  kit: readonly KitPiece[];
  space: Space;
  /** Patterns that must come; the rest is chosen by what was neglected. */
  wanted: readonly Pattern[];
  /** Patterns to leave out. */
  without: readonly Pattern[];
  /** Blocks in hand: their locked items stay. */
  blocks: readonly Block[];
  /** Movements not to take: what was offered before and sent away. */
  notThese: readonly string[];
  /** Today, ISO. */
  now: string;
  /** Makes ids for new blocks and items. */
  newId: () => string;
  /** Names the faults that were open last time. */
  faultOf?: LaneRequest['faultOf'];
}

export type SuggestReason =
  | { code: 'asked-for'; pattern: Pattern }
  /** Sets in four weeks, and about how many would balance the rest. */
  | { code: 'short'; pattern: Pattern; sets: number; wanted: number }
  /** `weeks` to four, which stands for longer. */
  | { code: 'not-trained'; pattern: Pattern; weeks: number }
  /** Nothing in the pattern is open; without limits it is the kit and the room. */
  | { code: 'left-out'; clientId: string; pattern: Pattern; by: LimitMet[] }
  /** A test that was last done so many weeks ago. */
  | { code: 'test-due'; clientId: string; name: string; weeks: number }
  | { code: 'shorter-rests' }
  | { code: 'fewer-lines'; count: number };

export interface Suggestion {
  blocks: Block[];
  /** Why patterns were chosen, and what could not be had. */
  reasons: SuggestReason[];
  seconds: number;
}

/** What a choice is worth. Starting guesses: only their order of size is argued for. */
export const SUGGEST_WORTH = {
  /** For each week, to four, that a pattern was not trained. */
  neglectedWeek: 0.5,
  /** A pattern that is being trained: what was begun goes on. */
  going: 1.6,
  /** For each place later in the usual order of patterns. */
  laterPattern: -0.35,
  wanted: 6,
  /** Times how far a pattern is short of what would balance four weeks, 0 to 1. */
  lagging: 3,
  /** For each set that is missing to it, to six: the largest gap comes first. */
  missing: 0.25,
  /** A movement in a plane that is short. */
  shortPlane: 0.6,
  /** The rung somebody stands on. */
  known: 4,
  /** One that the ladder says they are ready for. */
  ready: 5,
  /** One they have left behind. */
  below: -2,
  /** One that was too hard last time. */
  tooHard: -3,
  /** For each level away from where a newcomer begins. */
  levelOff: -0.6,
  care: -2.5,
  /** For each link to another rung, to eight: what much else is built on is where one begins. */
  staple: 0.2,
  /** Something new goes one way first: forward and back, and not to the side or round. */
  otherWay: -0.8,
  /** For each step by which something new asks more than a little of anything; of somebody new to training, more than nothing. */
  asks: -0.25,
  /** Something new that the weights of this kit can make heavier: it has somewhere to go. The trunk learns to hold first. */
  loadable: 1,
  /** The same for whoever has trained for years and comes for strength: their own weight is long outgrown. */
  loadableTrained: 3,
  /** A pattern that is not trained where it is meant to be: a heel raise is no squat, a curl is no pull; half of it where that comes second. */
  besides: -3,
  /** For each prime muscle beyond the first, to three: movements that work much in one. */
  compound: 0.9,
  /** For each person who has nothing on the line. */
  leftOut: -4,
  /** Times the share of prime muscles already worked. */
  sameMuscles: -2.5,
  /** Times the share of its muscles that the session uses, for what prepares and what eases off. */
  answers: 3,
  /** A stretch for the muscle that most lines worked and none eases yet; a share of it for one that fewer did. */
  eases: 3,
  /** The first warm-up of the shoulders in a session that goes overhead. */
  prepares: 5,
  /** Two people who want one piece. */
  shortage: -4,
  /** For each person on another movement than the first. */
  otherMovement: -0.4,
} as const;

const WEEK = 7 * 86_400_000;
/** Neglect counts to here, in weeks. */
const MOST_WEEKS = 4;
const BEAM = 16;
/** Choices kept for each slot. */
const CHOICES = 8;
const MAIN: readonly Pattern[] = ['squat', 'hinge', 'push', 'pull', 'lunge', 'carry', 'rotate'];
const LOWER: readonly Pattern[] = ['squat', 'hinge', 'lunge', 'travel'];

interface Laddered {
  ladder: Ladder;
  find: (id: string) => MovementSummary | undefined;
}

/** The library and the people, prepared once a suggestion. */
interface Known extends Laddered {
  /** The highest level of the ladder that a movement stands on. */
  heights: ReadonlyMap<string, number>;
  /** By client. */
  own: ReadonlyMap<string, Own>;
}

/** What is worked out once for a client. */
interface Own {
  progress: ReturnType<typeof progressIn>;
  /** Planes that were short in the last weeks. */
  planes: ReadonlySet<Plane>;
  /** Whether all that comes before a movement was done, or something harder than it. */
  mayBegin: (movement: MovementSummary) => boolean;
}

interface Slot {
  kind: BlockKind;
  pattern: Pattern;
  roles: readonly string[];
}

interface Pick {
  movement: MovementSummary;
  openness: Openness;
  worth: number;
  how: (typeof PICKED)[number];
}

/** What one client could do in a slot, best first. */
type Picks = Map<string, Pick[]>;

export function suggestSession(asked: SuggestRequest): Suggestion {
  const reasons: SuggestReason[] = [];
  const request = withTests(asked, reasons);
  const byId = new Map(request.movements.map((movement) => [movement.id, movement]));
  const ladder = buildLadder(request.movements);
  const around = { ladder, find: (id: string) => byId.get(id) };
  const known: Known = {
    ...around,
    heights: heightsOf(ladder),
    own: new Map(request.clients.map((client) => [client.id, ownOf(request, client, around)])),
  };
  const context: PlanContext = {
    find: known.find,
    knows: (clientId, id) => (request.clients.find((c) => c.id === clientId)?.sets[id]?.length ?? 0) > 0,
  };
  const slots = slotsFor(request, context, reasons);
  const open = openFor(request);
  const lines = beam(request, slots, known, open, context, reasons);
  const blocks = assemble(request, lines, known, context);
  const filled = grown(request, trimmed(request, blocks, context, reasons), context);
  const best = orderPlan(
    {
      blocks: mended(request, filled, known, context),
      minutes: request.minutes,
      clientIds: request.clients.map(({ id }) => id),
    },
    context,
  ).blocks;
  // The best order may take a little longer.
  const ordered = trimmed(request, best, context, reasons);
  return {
    blocks: ordered,
    reasons: reasons.filter((one, i) => reasons.findIndex((other) => canonical(other) === canonical(one)) === i),
    seconds: secondsOf(timelineOf({ blocks: ordered }, context)),
  };
}

/** From this many minutes there is time for a test. */
const TEST_MINUTES = 30;

/**
 * A request with the test that is due longest as a line of its own, before anything tires: where the movement is open, nothing asks for ease
 * and no test is in the plan already. One a session for each, so that a session stays a session.
 */
function withTests(request: SuggestRequest, reasons: SuggestReason[]): SuggestRequest {
  const { minutes, clients, movements, kit, notThese, space, blocks, newId } = request;
  const lanesIn = blocks.flatMap(({ items }) => items.flatMap(({ lanes }) => lanes));
  if (minutes < TEST_MINUTES || clients.every(({ tests = [] }) => tests.length === 0)) return request;
  const counts = kitCounts(kit);
  const around = { ladder: buildLadder(movements), find: (id: string) => movements.find((one) => one.id === id) };
  const items = clients.flatMap((client): PlanItem[] => {
    if (client.standing.ease || mayNotStrain(client.standing)) return [];
    if (lanesIn.some(({ clientId, test }) => clientId === client.id && test)) return [];
    const due = (client.tests ?? []).find(({ test: { movementId } }) => {
      const movement = movements.find(({ id }) => id === movementId);
      return (
        movement !== undefined &&
        !notThese.includes(movementId) &&
        SPACES.indexOf(movement.space) <= SPACES.indexOf(space) &&
        isOpen(fitNow(client.standing, counts, movement)) &&
        // A test asks for the most there is: not over a fault that is unsolved, nor after a set that failed.
        heldBetween(laneRequest(request, client, movement, around)) === null
      );
    });
    const movement = movements.find(({ id }) => id === due?.test.movementId);
    if (!due || !movement) return [];
    const { movementId, amount, ...test } = due.test;
    reasons.push({ code: 'test-due', clientId: client.id, name: test.name, weeks: due.weeks });
    const { lane } = laneFor(laneRequest(request, client, movement, around));
    const own = { ...lane, movementId, sets: 1, test, why: [{ code: 'test-due' as const, weeks: due.weeks }] };
    return [{ id: newId(), locked: true, tied: false, lanes: [amount === undefined ? own : { ...own, amount }] }];
  });
  if (items.length === 0) return request;
  const block: Block = { id: newId(), kind: 'skill', rounds: 1, workSeconds: null, items };
  return { ...request, blocks: [...blocks, block] };
}

/** Weeks since anybody of the group trained a pattern, at most four. */
export function neglect(
  clients: readonly SuggestClient[],
  find: (id: string) => MovementSummary | undefined,
  now: string,
): Map<Pattern, number> {
  const last = new Map<Pattern, number>();
  for (const { sets } of clients)
    for (const [id, sessions] of Object.entries(sets)) {
      const pattern = find(id)?.pattern;
      if (!pattern) continue;
      for (const { at } of sessions) last.set(pattern, Math.max(last.get(pattern) ?? 0, Date.parse(at)));
    }
  return new Map(
    MAIN.map((pattern) => [pattern, Math.min(MOST_WEEKS, (Date.parse(now) - (last.get(pattern) ?? 0)) / WEEK)]),
  );
}

/** How many strength movements a slot of so many minutes holds: about seven minutes each, with what prepares and eases off. */
const mainCount = (minutes: number): number => Math.max(1, Math.min(MAIN.length, Math.round((minutes - 2) / 7)));

function heightsOf({ components, levels }: Ladder): Map<string, number> {
  const highest = new Map<number, number>();
  for (const [id, component] of components)
    highest.set(component, Math.max(highest.get(component) ?? 0, levels.get(id) ?? 0));
  return new Map([...components].map(([id, component]) => [id, highest.get(component) ?? 0]));
}

const balanceFor = ({ clients, purpose, now }: SuggestRequest, find: PlanContext['find']): Balance =>
  balanceOf({ people: clients.map(({ sets, day = null }) => ({ sets, day })), aim: purpose, find, now });

const MOST_MISSING = 6;

/** What it is worth to fill a gap; nothing where there is none. */
const gapWorth = (gap: Part<Pattern> | undefined): number =>
  gap
    ? (1 - gap.sets / gap.wanted) * SUGGEST_WORTH.lagging + Math.min(MOST_MISSING, missing(gap)) * SUGGEST_WORTH.missing
    : 0;

function slotsFor(request: SuggestRequest, { find }: PlanContext, reasons: SuggestReason[]): Slot[] {
  const weeks = neglect(request.clients, find, request.now);
  const short = new Map(
    balanceFor(request, find)
      .patterns.filter((one) => one.short)
      .map((one) => [one.of, one]),
  );
  const allowed = MAIN.filter((pattern) => !request.without.includes(pattern));
  const worth = (pattern: Pattern) =>
    (request.wanted.includes(pattern) ? SUGGEST_WORTH.wanted : 0) +
    (weeks.get(pattern) ?? MOST_WEEKS) * SUGGEST_WORTH.neglectedWeek +
    ((weeks.get(pattern) ?? MOST_WEEKS) < MOST_WEEKS ? SUGGEST_WORTH.going : 0) +
    gapWorth(short.get(pattern)) +
    MAIN.indexOf(pattern) * SUGGEST_WORTH.laterPattern;
  const chosen = allowed.toSorted((a, b) => worth(b) - worth(a)).slice(0, mainCount(request.minutes));
  for (const pattern of chosen) {
    const ago = weeks.get(pattern) ?? MOST_WEEKS;
    const gap = short.get(pattern);
    if (request.wanted.includes(pattern)) reasons.push({ code: 'asked-for', pattern });
    else if (gap) reasons.push({ code: 'short', pattern, sets: gap.sets, wanted: Math.round(gap.wanted) });
    else if (ago >= 2) reasons.push({ code: 'not-trained', pattern, weeks: Math.floor(ago) });
  }
  // Upper and lower take turns, so that one rests while the other works.
  const lower = chosen.filter((pattern) => LOWER.includes(pattern));
  const upper = chosen.filter((pattern) => !LOWER.includes(pattern));
  const main = chosen
    .map((_, i) => (i % 2 === 0 ? (lower.shift() ?? upper.shift()) : (upper.shift() ?? lower.shift())))
    .filter((p) => p !== undefined);
  const around = (kind: BlockKind, roles: readonly string[], count: number): Slot[] =>
    Array.from({ length: count }, () => ({ kind, pattern: 'mobilise' as const, roles }));
  // What prepares and what eases off is chosen last, for the muscles that the rest uses.
  return [
    ...main.map((pattern): Slot => ({ kind: 'strength', pattern, roles: ['strength'] })),
    ...(request.minutes >= 25 && !request.without.includes('brace')
      ? [{ kind: 'trunk' as const, pattern: 'brace' as const, roles: ['strength', 'drill'] }]
      : []),
    ...around('warm-up', ['mobility', 'drill'], request.minutes >= 40 ? 3 : request.minutes >= 20 ? 2 : 1),
    ...around('stretch', ['stretch'], request.minutes >= 40 ? 2 : 1),
  ];
}

/** For each client, what is open or a matter of care, by pattern; what the kit and the room allow. */
function openFor({
  clients,
  movements,
  kit,
  space,
  notThese,
}: SuggestRequest): Map<string, Map<Pattern, { movement: MovementSummary; openness: Openness }[]>> {
  const counts = kitCounts(kit);
  const room = SPACES.indexOf(space);
  const away = new Set(notThese);
  const usable = movements.filter((movement) => !away.has(movement.id) && SPACES.indexOf(movement.space) <= room);
  return new Map(
    clients.map((client) => {
      const byPattern = new Map<Pattern, { movement: MovementSummary; openness: Openness }[]>();
      for (const movement of usable) {
        const { status: openness } = fitNow(client.standing, counts, movement);
        if (openness === 'closed') continue;
        const all = byPattern.get(movement.pattern);
        if (all) all.push({ movement, openness });
        else byPattern.set(movement.pattern, [{ movement, openness }]);
      }
      return [client.id, byPattern];
    }),
  );
}

/** How far up a ladder somebody begins what is new to them, as a share of its height, by whole years of training. */
const ENTRY: readonly (readonly [years: number, share: number])[] = [
  [3, 0.6],
  [1, 0.45],
  [0, 0.25],
];
const entryShare = ({ trainingYears }: Standing): number =>
  ENTRY.find(([years]) => (trainingYears ?? 0) >= years)?.[1] ?? 0;

/** What a pattern is there to train: a movement that is for another muscle first is something beside. */
const TRAINS: Readonly<Partial<Record<Pattern, readonly Muscle[]>>> = {
  squat: ['quads', 'glutes'],
  lunge: ['quads', 'glutes'],
  hinge: ['glutes', 'hamstrings'],
  push: ['chest'],
  pull: ['lats', 'mid-back', 'upper-back'],
  brace: ['abs', 'obliques', 'deep-trunk'],
};

/** How far a movement trains something beside its pattern: 0 to 1. */
function besides({ muscles: { prime } }: MovementSummary, pattern: Pattern): number {
  const meant = TRAINS[pattern];
  if (!meant || prime.slice(0, 1).some((muscle) => meant.includes(muscle))) return 0;
  return prime.some((muscle) => meant.includes(muscle)) ? 0.5 : 1;
}

/** Links to other rungs that make a movement a staple. */
const MOST_LINKS = 8;

function picksFor(
  request: SuggestRequest,
  client: SuggestClient,
  slot: Slot,
  all: readonly { movement: MovementSummary; openness: Openness }[],
  known: Known,
): Pick[] {
  const own = known.own.get(client.id) ?? ownOf(request, client, known);
  const { planes } = own;
  const { readyFor, passed, tooHard, downFrom, above } = own.progress;
  const done = (id: string): boolean => client.sets[id] !== undefined;
  return all
    .filter(({ movement }) => slot.roles.includes(movement.role))
    .filter(({ movement }) => readyFor.has(movement.id) || !(above.has(movement.id) || !own.mayBegin(movement)))
    .map(({ movement, openness }): Pick => {
      const { id, level } = movement;
      const main = !isAround(slot);
      const before = readyFor.get(id);
      let worth = openness === 'care' ? SUGGEST_WORTH.care : 0;
      if (main && movement.planes.some((plane) => planes.has(plane))) worth += SUGGEST_WORTH.shortPlane;
      if (main) worth += SUGGEST_WORTH.besides * besides(movement, slot.pattern);
      if (main) worth += SUGGEST_WORTH.compound * Math.min(2, Math.max(0, moversOf(movement) - 1));
      let how: Pick['how'] = 'new';
      if (tooHard.has(id)) {
        worth += SUGGEST_WORTH.tooHard;
        how = 'too-hard-before';
      } else if (main && downFrom.has(id)) {
        worth += SUGGEST_WORTH.ready;
        how = 'rung-down';
      } else if (main && before !== undefined) {
        worth += SUGGEST_WORTH.ready;
        how = 'rung-ready';
      } else if (done(id)) {
        worth += SUGGEST_WORTH.known + (passed.has(id) ? SUGGEST_WORTH.below : 0);
        how = passed.has(id) ? 'rung-below' : 'rung-of-last-time';
      } else
        worth +=
          SUGGEST_WORTH.levelOff * Math.abs(level - entryShare(client.standing) * (known.heights.get(id) ?? 0)) +
          newWorth(request, client, movement, known);
      return { movement, openness, worth, how };
    })
    .sort((a, b) => b.worth - a.worth || (a.movement.id < b.movement.id ? -1 : 1));
}

/** Muscles that hold while others move make a movement no richer. */
const HOLDING: readonly Muscle[] = ['low-back', 'forearms', 'neck'];
const moversOf = ({ muscles }: MovementSummary): number =>
  muscles.prime.filter((muscle) => !HOLDING.includes(muscle)).length;

/** What speaks for beginning with a movement, and against it: what much is built on, goes one way and asks little comes first. */
function newWorth(
  { kit: pieces, purpose }: SuggestRequest,
  { standing }: SuggestClient,
  { id, pattern, planes, demands, kit, dose }: MovementSummary,
  { ladder }: Known,
): number {
  const rung = ladder.rungs.get(id);
  const links = (rung?.easier.length ?? 0) + (rung?.harder.length ?? 0) + (rung?.sideways.length ?? 0);
  const years = standing.trainingYears ?? 0;
  const little = years === 0 ? 0 : 1;
  const outgrown = years >= TRAINED_YEARS && (purpose === 'strength' || purpose === 'power');
  const heavier = outgrown ? SUGGEST_WORTH.loadableTrained : SUGGEST_WORTH.loadable;
  const asked = Object.values(demands).reduce((sum, amount) => sum + Math.max(0, amount - little), 0);
  return (
    Math.min(MOST_LINKS, links) * SUGGEST_WORTH.staple +
    (planes.every((plane) => plane === 'sagittal') ? 0 : SUGGEST_WORTH.otherWay) +
    asked * SUGGEST_WORTH.asks +
    (pattern !== 'brace' && dose.mode === 'reps' && loadsFor(kit, pieces).length > 0 ? heavier : 0)
  );
}

function ownOf(request: SuggestRequest, client: SuggestClient, known: Laddered): Own {
  const { planes } = balanceFor({ ...request, clients: [client] }, known.find);
  return {
    progress: progressIn(request, client, known),
    mayBegin: beginsWith(client, known.ladder),
    planes: new Set(planes.filter((one) => one.short).map((one) => one.of)),
  };
}

/** Whoever has trained this long is taken to have done what comes before. */
const TRAINED_YEARS = 2;

function beginsWith({ standing, sets }: SuggestClient, ladder: Ladder): Own['mayBegin'] {
  if ((standing.trainingYears ?? 0) >= TRAINED_YEARS) return () => true;
  const owned = new Set(Object.keys(sets).flatMap((id) => [id, ...reach(ladder, id, ['easier'], FAR).keys()]));
  return ({ id, precursors }) => owned.has(id) || precursors.every((before) => owned.has(before));
}

/** What the policy of progress says of everything that a client has done. */
function progressIn(request: SuggestRequest, client: SuggestClient, known: Laddered) {
  const { ladder, find } = known;
  /** Rungs whose sign is met, and the one below each. */
  const readyFor = new Map<string, string>();
  const passed = new Set<string>();
  const tooHard = new Set<string>();
  const downFrom = new Set<string>();
  /** Rungs above what was done last, which nobody comes to but by their sign. */
  const above = new Set<string>();
  // What was gone down from on the floor is come back to by its sign, and not before.
  const waiting = new Set(comeBacks(client, ladder).map(({ movementId }) => movementId));
  const beenOn = (id: string) => client.sets[id] !== undefined && !waiting.has(id);
  const done = Object.keys(client.sets).filter((id) => find(id));
  for (const id of waiting) above.add(id);
  for (const id of done) {
    const movement = find(id);
    const harder = ladder.rungs.get(id)?.harder ?? [];
    if (harder.some(({ to }) => beenOn(to))) passed.add(id);
    for (const to of reach(ladder, id, ['harder'], FAR).keys()) if (!beenOn(to)) above.add(to);
    const step = movement && laneFor(laneRequest(request, client, movement, known)).step;
    if (waiting.has(id)) continue;
    if (step?.kind === 'rung-up' && step.to !== null && !beenOn(step.to)) readyFor.set(step.to, id);
    if (step?.kind !== 'rung-down') continue;
    tooHard.add(id);
    for (const { to } of ladder.rungs.get(id)?.easier ?? []) downFrom.add(to);
  }
  return { readyFor, passed, tooHard, downFrom, above };
}

/** Rungs above one that was done, as far as they are looked at. */
const FAR = 8;

interface Line {
  slot: Slot;
  picks: { client: SuggestClient; pick: Pick }[];
  worth: number;
}

interface State {
  lines: Line[];
  worth: number;
  muscles: Set<string>;
  /** Lines that worked a muscle and no stretch eases yet. */
  uneased: ReadonlyMap<Muscle, number>;
  used: Set<string>;
}

/** Choices for one slot: one movement for all where it can be, else each on the best rung of one family, else each their best. */
function lineChoices(slot: Slot, byClient: Picks, request: SuggestRequest, known: Known, context: PlanContext): Line[] {
  const families = new Map<string, number>();
  for (const picks of byClient.values())
    for (const { movement, worth } of picks.slice(0, CHOICES * 3))
      for (const family of movement.families) families.set(family, Math.max(families.get(family) ?? -Infinity, worth));
  const lines: Line[] = [];
  const seen = new Set<string>();
  const consider = (pickOf: (picks: readonly Pick[]) => Pick | undefined) => {
    const picks = request.clients.flatMap((client) => {
      const pick = pickOf(byClient.get(client.id) ?? []);
      return pick ? [{ client, pick }] : [];
    });
    if (picks.length === 0) return;
    const key = picks.map(({ client, pick }) => `${client.id}:${pick.movement.id}`).join();
    if (seen.has(key)) return;
    seen.add(key);
    const others = picks.filter(({ pick }) => pick.movement.id !== picks[0]?.pick.movement.id).length;
    const lanes = picks.map(({ client, pick }) => laneFor(laneRequest(request, client, pick.movement, known)).lane);
    const short = picks.length > 1 ? shortagesOf(lanes, request.kit, context).length : 0;
    const worth =
      picks.reduce((sum, { pick }) => sum + pick.worth, 0) / request.clients.length +
      others * SUGGEST_WORTH.otherMovement +
      short * SUGGEST_WORTH.shortage +
      (request.clients.length - picks.length) * SUGGEST_WORTH.leftOut;
    lines.push({ slot, picks, worth });
  };
  const best = [...families].toSorted((a, b) => b[1] - a[1]).slice(0, CHOICES);
  consider(([pick]) => pick);
  for (const [family] of best) consider((picks) => picks.find(({ movement }) => movement.families.includes(family)));
  for (const { movement } of byClient.get(request.clients[0]?.id ?? '')?.slice(0, CHOICES) ?? [])
    consider((picks) => picks.find((pick) => pick.movement.id === movement.id));
  // What prepares and what eases off answers to a muscle: for each there is a choice.
  if (isAround(slot))
    for (const muscle of MUSCLES)
      consider((picks) => picks.find(({ movement }) => movement.muscles.prime.includes(muscle)));
  return lines;
}

const laneRequest = (
  { purpose, kit, faultOf }: SuggestRequest,
  { id: clientId, standing, sets }: SuggestClient,
  movement: MovementSummary,
  { ladder, find }: Laddered,
): LaneRequest => ({
  clientId,
  standing,
  movement,
  purpose,
  sets,
  kit,
  ladder,
  find,
  faultOf,
});

const familiesOf = ({ picks }: Line): string[] => picks.flatMap(({ pick }) => pick.movement.families);

/** Slot after slot, the few best partial sessions. */
function beam(
  request: SuggestRequest,
  slots: readonly Slot[],
  known: Known,
  openTo: ReturnType<typeof openFor>,
  context: PlanContext,
  reasons: SuggestReason[],
): Line[] {
  const locked = request.blocks.flatMap(({ items }) => items).filter((item) => item.locked);
  const taken = new Set(locked.flatMap(({ lanes }) => lanes.map(({ movementId }) => movementId)));
  let states: State[] = [{ lines: [], worth: 0, muscles: new Set(), uneased: new Map(), used: taken }];
  const cache = new Map<string, Line[]>();
  /**
   * @param apart takes nothing of a family that the session has already
   * @returns whether there is anything for anybody
   */
  const take = (slot: Slot, apart = false): boolean => {
    const key = `${slot.kind} ${slot.pattern}`;
    let choices = cache.get(key);
    if (!choices) {
      const byClient: Picks = new Map(
        request.clients.map((client) => [
          client.id,
          picksFor(request, client, slot, openTo.get(client.id)?.get(slot.pattern) ?? [], known),
        ]),
      );
      for (const client of request.clients)
        if (byClient.get(client.id)?.length === 0) reasons.push(leftOut(request, client, slot));
      choices = lineChoices(slot, byClient, request, known, context);
      cache.set(key, choices);
    }
    const next = states.flatMap((state) => {
      const families = new Set(apart ? state.lines.flatMap(familiesOf) : []);
      const fresh = (choices ?? []).filter(
        (line) =>
          line.picks.every(({ pick }) => !state.used.has(pick.movement.id)) &&
          !familiesOf(line).some((family) => families.has(family)),
      );
      return fresh.length === 0 ? [state] : fresh.map((line) => extended(state, line));
    });
    states = next.sort((a, b) => b.worth - a.worth).slice(0, BEAM);
    return choices.length > 0;
  };
  const main = slots.filter((slot) => !isAround(slot));
  const strength = main.filter(({ kind }) => kind === 'strength');
  const open = main.filter((slot) => take(slot)).filter(({ kind }) => kind === 'strength');
  // What is closed to everybody gives its time to what is open: a second movement, and a third, of these patterns.
  for (let i = 0; i < strength.length - open.length; i += 1) {
    const slot = open[i % open.length];
    if (slot) take(slot, true);
  }
  // What prepares and eases off follows the session, and does not choose it.
  states = states.slice(0, 1);
  slots.filter(isAround).forEach((slot) => take(slot));
  return states[0]?.lines ?? [];
}

function extended(state: State, line: Line): State {
  const prime = line.picks.flatMap(({ pick }) => pick.movement.muscles.prime);
  const around = isAround(line.slot);
  // What goes overhead wants shoulders that are warm.
  const overhead = state.lines.some(
    ({ slot, picks }) => !isAround(slot) && picks.some(({ pick }) => goesOverhead(pick.movement)),
  );
  const prepared = state.lines.some(
    ({ slot, picks }) => slot.kind === 'warm-up' && picks.some(({ pick }) => warmsShoulders(pick.movement)),
  );
  const prepares =
    line.slot.kind === 'warm-up' &&
    overhead &&
    !prepared &&
    line.picks.every(({ pick }) => warmsShoulders(pick.movement));
  const stretches = line.slot.kind === 'stretch';
  const most = Math.max(1, ...state.uneased.values());
  const eases = stretches ? Math.max(0, ...prime.map((muscle) => state.uneased.get(muscle) ?? 0)) / most : 0;
  const common = prime.length === 0 ? 0 : prime.filter((muscle) => state.muscles.has(muscle)).length / prime.length;
  return {
    lines: [...state.lines, line],
    worth:
      state.worth +
      line.worth +
      (prepares ? SUGGEST_WORTH.prepares : 0) +
      eases * SUGGEST_WORTH.eases +
      common * (around ? SUGGEST_WORTH.answers : SUGGEST_WORTH.sameMuscles),
    muscles: around ? state.muscles : new Set([...state.muscles, ...prime]),
    uneased: stretches ? easedBy(state.uneased, prime) : around ? state.uneased : counted(state.uneased, prime),
    used: new Set([...state.used, ...line.picks.map(({ pick }) => pick.movement.id)]),
  };
}

const easedBy = (counts: State['uneased'], muscles: readonly Muscle[]): State['uneased'] =>
  new Map([...counts].filter(([muscle]) => !muscles.includes(muscle)));

const counted = (counts: State['uneased'], muscles: readonly Muscle[]): State['uneased'] => {
  const more = new Map(counts);
  for (const muscle of new Set(muscles)) more.set(muscle, (more.get(muscle) ?? 0) + 1);
  return more;
};

/** Limits that are named for a pattern that is closed, at most. */
const MOST_NAMED = 2;

/** Why somebody has nothing in a pattern: the limits that close it, or the kit and the room. */
function leftOut({ movements, kit }: SuggestRequest, client: SuggestClient, slot: Slot): SuggestReason {
  const counts = kitCounts(kit);
  const closing = new Map<string, LimitMet>();
  for (const movement of movements) {
    if (movement.pattern !== slot.pattern || !slot.roles.includes(movement.role)) continue;
    const fit = fitWith(movement, client.standing.limits, counts);
    if (fit.status === 'closed') for (const met of fit.because) closing.set(canonical(met), met);
  }
  const by = [...closing.values()].slice(0, MOST_NAMED);
  return { code: 'left-out', clientId: client.id, pattern: slot.pattern, by };
}

/** Blocks that prepare or ease off count for themselves; anywhere else a pattern is the same work. */
const keyOf = (kind: BlockKind, pattern: Pattern | undefined): string =>
  isAround({ kind }) ? kind : `work ${pattern}`;

/** Lines as blocks. Blocks with something locked stay, where they stand; what is new joins the first of its kind. */
function assemble(request: SuggestRequest, lines: readonly Line[], known: Known, context: PlanContext): Block[] {
  const blocks = request.blocks
    .map((block) => ({ ...block, items: block.items.filter((item) => item.locked) }))
    .filter(({ items }) => items.length > 0);
  const blockOf = (kind: BlockKind): Block => {
    const known = blocks.find((block) => block.kind === kind);
    if (known) return known;
    const fresh: Block = { id: request.newId(), kind, rounds: 2, workSeconds: null, items: [] };
    const later = blocks.findIndex((block) => BLOCK_KINDS.indexOf(block.kind) > BLOCK_KINDS.indexOf(kind));
    blocks.splice(later < 0 ? blocks.length : later, 0, fresh);
    return fresh;
  };
  const held = new Map<string, number>();
  for (const { items, kind } of blocks)
    for (const { lanes } of items) {
      const key = keyOf(kind, context.find(lanes[0]?.movementId ?? '')?.pattern);
      held.set(key, (held.get(key) ?? 0) + 1);
    }
  for (const { slot, picks } of lines) {
    const key = keyOf(slot.kind, slot.pattern);
    const already = held.get(key) ?? 0;
    if (already > 0) {
      held.set(key, already - 1);
      continue;
    }
    const item: PlanItem = {
      id: request.newId(),
      locked: false,
      tied: false,
      lanes: picks.map(({ client, pick }) => {
        const { lane } = laneFor(laneRequest(request, client, pick.movement, known));
        const light = isAround(slot);
        const { day = null } = client;
        const forDay: LineReason[] =
          day !== null && !light && moreForDay(day, pick.movement.pattern) ? [{ code: 'for-day', day }] : [];
        return {
          ...lane,
          sets: light ? 1 : lane.sets,
          rest: light ? Math.min(lane.rest, 10) : lane.rest,
          why: [{ code: 'picked', how: pick.how, care: pick.openness === 'care' }, ...forDay, ...lane.why],
        };
      }),
    };
    blockOf(slot.kind).items.push(item);
  }
  return blocks;
}

/** What a suggestion mends of itself before it is shown. */
const OWN_FAULTS: readonly Wrong['code'][] = ['push-pull', 'short', 'cold-shoulders', 'no-stretch'];
/** A fix may bring up another matter. */
const MOST_FIXES = 8;

/**
 * A suggestion brings nothing that it would warn of at once: pulling is added to pushing where there is time for it, or pushing cut,
 * and of two who want one piece somebody takes the next lighter one.
 */
function mended(request: SuggestRequest, blocks: Block[], { ladder }: Known, context: PlanContext): Block[] {
  const { minutes, purpose, clients, without } = request;
  const plan = { blocks, minutes, purpose, clientIds: clients.map(({ id }) => id) };
  const around = { ...request, ...context, ladder, instead: () => undefined };
  const itemsOf = (some: readonly Block[]) => some.flatMap(({ items }) => items);
  const locked = (some: readonly Block[]) => canonical(itemsOf(some).filter((one) => one.locked));
  const kgOf = (some: readonly Block[]) =>
    itemsOf(some).reduce((sum, { lanes }) => sum + lanes.reduce((kg, { load }) => kg + (load?.kg ?? 0), 0), 0);
  const may = ({ does, blocks: then }: Fix): boolean => {
    if (does.code === 'stations' || locked(then) !== locked(plan.blocks)) return false;
    if (does.code === 'add' && without.includes('pull')) return false;
    if (does.code === 'load' && kgOf(then) > kgOf(plan.blocks)) return false;
    return secondsOf(timelineOf({ blocks: then }, context)) <= minutes * 60;
  };
  for (let n = 0; n < MOST_FIXES; n += 1) {
    const fix = warningsOf(plan, around)
      .filter(({ wrong }) => OWN_FAULTS.includes(wrong.code))
      .flatMap(({ fixes }) => fixes)
      .find(may);
    if (!fix) break;
    plan.blocks = fix.blocks;
  }
  return plan.blocks;
}

/** Sets that a suggestion gives at most. */
const MOST_SETS = 4;

/** Seconds by which a rest is cut at a time, and the share of the usual one that is left to everybody. */
const REST_STEP = 15;
const LEAST_REST = 2 / 3;

/** A rest one step shorter; the same where no more can be cut. */
function shorterRest({ movementId, rest }: PlanLane, purpose: Purpose, { find }: PlanContext): number {
  const movement = find(movementId);
  const usual = movement ? windowFor(movement, purpose).rest : rest;
  return Math.max(Math.min(rest, Math.ceil(usual * LEAST_REST)), rest - REST_STEP);
}

const free = (blocks: readonly Block[]): PlanItem[] =>
  blocks
    .filter((block) => !isAround(block))
    .flatMap(({ items }) => items)
    .filter((item) => !item.locked);

const setsOf = ({ lanes }: PlanItem): number => Math.max(...lanes.map(({ sets }) => sets));

const changed = (blocks: readonly Block[], { id }: PlanItem, by: (lane: PlanLane) => Partial<PlanLane>): Block[] =>
  mapItem(blocks, id, (item) => ({ ...item, lanes: item.lanes.map((lane) => ({ ...lane, ...by(lane) })) }));

/** Brings the minutes under the slot: a set less where there are most, then shorter rests, then an item less. */
function trimmed(
  { minutes, purpose }: SuggestRequest,
  start: readonly Block[],
  context: PlanContext,
  reasons: SuggestReason[],
): Block[] {
  let blocks = [...start];
  const shorter = (item: PlanItem) => item.lanes.some((lane) => shorterRest(lane, purpose, context) < lane.rest);
  let dropped = 0;
  let shortened = false;
  while (secondsOf(timelineOf({ blocks }, context)) > minutes * 60) {
    const [most] = free(blocks).toSorted((a, b) => setsOf(b) - setsOf(a));
    const tight = free(blocks).find(shorter);
    if (most && setsOf(most) > 2) blocks = changed(blocks, most, ({ sets }) => ({ sets: Math.max(1, sets - 1) }));
    else if (tight) {
      blocks = changed(blocks, tight, (lane) => ({ rest: shorterRest(lane, purpose, context) }));
      shortened = true;
    } else {
      const victim = free(blocks).at(-1) ?? blocks.flatMap(({ items }) => items).findLast((one) => !one.locked);
      if (!victim) break;
      blocks = blocks
        .map((block) => ({ ...block, items: block.items.filter((one) => one !== victim) }))
        .filter(({ items }) => items.length > 0);
      dropped += 1;
    }
  }
  if (shortened) reasons.push({ code: 'shorter-rests' });
  if (dropped > 0) reasons.push({ code: 'fewer-lines', count: dropped });
  return blocks;
}

/** Seconds of the slot that are left free. */
const SPARE = 30;

/** Adds sets, those first that have fewest, while there is room. */
function grown({ minutes, purpose }: SuggestRequest, start: readonly Block[], context: PlanContext): Block[] {
  let blocks = [...start];
  const mostOf = (id: string) => Math.min(MOST_SETS, context.find(id)?.dose.windows[purpose]?.sets[1] ?? MOST_SETS);
  for (;;) {
    const next = free(blocks)
      .filter(({ lanes }) => lanes.every(({ movementId, sets }) => sets < mostOf(movementId)))
      .toSorted((a, b) => setsOf(a) - setsOf(b))
      .map((item) => changed(blocks, item, ({ sets }) => ({ sets: sets + 1 })))
      .find((more) => secondsOf(timelineOf({ blocks: more }, context)) <= minutes * 60 - SPARE);
    if (!next) return blocks;
    blocks = next;
  }
}
