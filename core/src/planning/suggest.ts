/**
 * A session, suggested: which patterns, which rung for whom, in what dose and order, to fill the slot and no more.
 * A beam search over slots; limits are never bent, and every choice says why. Locked items stay as they are.
 */
import type { Move, PastSession } from '../client/history.js';
import type { MovementSummary } from '../movement/summary.js';
import { buildLadder, reach, type Ladder } from '../ladder/graph.js';
import { kitCounts, type KitPiece } from '../movement/kit.js';
import { fitFor, type Openness } from '../movement/limits.js';
import { SPACES, type Pattern, type Purpose, type Space } from '../movement/vocabulary.js';
import { inWords, label } from '../movement/words.js';
import { fitNow } from '../progress/fit.js';
import { windowFor } from '../progress/next-step.js';
import type { Standing } from '../progress/standing.js';
import { laneFor, type LaneRequest } from './lane-for.js';
import { orderPlan } from './order-plan.js';
import {
  BLOCK_KINDS,
  isAround,
  type Block,
  type BlockKind,
  type PlanContext,
  type PlanItem,
  type PlanLane,
} from './plan.js';
import { shortagesOf } from './shortage.js';
import { secondsOf, timelineOf } from './timeline.js';

export interface SuggestClient {
  id: string;
  name: string;
  standing: Standing;
  /** Sessions by movement. */
  sets: Readonly<Record<string, readonly PastSession[]>>;
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

export interface Suggestion {
  blocks: Block[];
  /** Why each block's patterns were chosen, and what could not be had. */
  reasons: string[];
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
  /** Times how far a pattern lags behind its counterpart over four weeks, 0 to 1. */
  lagging: 3,
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
  care: -1.5,
  /** For each prime muscle beyond the first, to three: movements that work much in one. */
  compound: 0.7,
  /** For each person who has nothing on the line. */
  leftOut: -4,
  /** Times the share of prime muscles already worked. */
  sameMuscles: -2.5,
  /** Times the share of its muscles that the session uses, for what prepares and what eases off. */
  answers: 3,
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

/** The library, prepared once a suggestion. */
interface Known {
  ladder: Ladder;
  find: (id: string) => MovementSummary | undefined;
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
  because: string;
}

/** What one client could do in a slot, best first. */
type Picks = Map<string, Pick[]>;

export function suggestSession(request: SuggestRequest): Suggestion {
  const byId = new Map(request.movements.map((movement) => [movement.id, movement]));
  const known: Known = { ladder: buildLadder(request.movements), find: (id) => byId.get(id) };
  const context: PlanContext = {
    find: known.find,
    knows: (clientId, id) => (request.clients.find((c) => c.id === clientId)?.sets[id]?.length ?? 0) > 0,
  };
  const reasons: string[] = [];
  const slots = slotsFor(request, context, reasons);
  const open = openFor(request);
  const lines = beam(request, slots, known, open, context, reasons);
  const blocks = assemble(request, lines, known, context);
  const fitted = fit(request, blocks, context, reasons);
  const ordered = orderPlan(
    { blocks: fitted, minutes: request.minutes, clientIds: request.clients.map(({ id }) => id) },
    context,
  ).blocks;
  return {
    blocks: ordered,
    reasons: [...new Set(reasons)],
    seconds: secondsOf(timelineOf({ blocks: ordered }, context)),
  };
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

/** What is trained against what: push and pull, knee and hip. */
const COUNTERPARTS: readonly (readonly [readonly Pattern[], readonly Pattern[]])[] = [
  [['push'], ['pull']],
  [['squat', 'lunge'], ['hinge']],
];
/** Sets of a counterpart below which nothing lags yet. */
const LEAST_AGAINST = 6;
/** Share by which a pattern must lag to be named. */
const LAGS_FROM = 0.4;

export interface Lag {
  pattern: Pattern;
  sets: number;
  counterpart: readonly Pattern[];
  /** Sets of the counterpart. */
  against: number;
  /** 0: as much as its counterpart; 1: nothing. */
  share: number;
}

/** Patterns of which a group did clearly less than of their counterparts in the last four weeks. */
export function lagsOf(
  clients: readonly { sets: SuggestClient['sets'] }[],
  find: (id: string) => MovementSummary | undefined,
  now: string,
): Lag[] {
  const from = Date.parse(now) - MOST_WEEKS * WEEK;
  const count = new Map<Pattern, number>();
  for (const { sets } of clients)
    for (const [id, sessions] of Object.entries(sets)) {
      const pattern = find(id)?.pattern;
      if (!pattern) continue;
      const done = sessions.filter(({ at }) => Date.parse(at) >= from).reduce((sum, one) => sum + one.sets.length, 0);
      count.set(pattern, (count.get(pattern) ?? 0) + done);
    }
  const sum = (patterns: readonly Pattern[]) => patterns.reduce((all, one) => all + (count.get(one) ?? 0), 0);
  return COUNTERPARTS.flatMap(([a, b]) => [[a, b] as const, [b, a] as const]).flatMap(([own, counterpart]) => {
    const [sets, against] = [sum(own), sum(counterpart)];
    const share = against < LEAST_AGAINST ? 0 : 1 - sets / against;
    return share < LAGS_FROM ? [] : own.map((pattern) => ({ pattern, sets, counterpart, against, share }));
  });
}

/** How many strength movements a slot of so many minutes holds: about six minutes each beside warm-up and stretch. */
const mainCount = (minutes: number): number => Math.max(1, Math.min(MAIN.length, Math.floor((minutes - 10) / 6)));

function slotsFor(request: SuggestRequest, { find }: PlanContext, reasons: string[]): Slot[] {
  const weeks = neglect(request.clients, find, request.now);
  const lags = new Map(lagsOf(request.clients, find, request.now).map((lag) => [lag.pattern, lag]));
  const allowed = MAIN.filter((pattern) => !request.without.includes(pattern));
  const worth = (pattern: Pattern) =>
    (request.wanted.includes(pattern) ? SUGGEST_WORTH.wanted : 0) +
    (weeks.get(pattern) ?? MOST_WEEKS) * SUGGEST_WORTH.neglectedWeek +
    ((weeks.get(pattern) ?? MOST_WEEKS) < MOST_WEEKS ? SUGGEST_WORTH.going : 0) +
    (lags.get(pattern)?.share ?? 0) * SUGGEST_WORTH.lagging +
    MAIN.indexOf(pattern) * SUGGEST_WORTH.laterPattern;
  const chosen = allowed.toSorted((a, b) => worth(b) - worth(a)).slice(0, mainCount(request.minutes));
  for (const pattern of chosen) {
    const ago = weeks.get(pattern) ?? MOST_WEEKS;
    const lag = lags.get(pattern);
    if (request.wanted.includes(pattern)) reasons.push(`${label(pattern)}: asked for`);
    else if (lag)
      reasons.push(
        `${label(pattern)}: ${lag.sets} ${lag.sets === 1 ? 'set' : 'sets'} in four weeks, against ${lag.against} of ${lag.counterpart.map(inWords).join(' and ')}`,
      );
    else if (ago >= 2)
      reasons.push(
        `${label(pattern)}: ${ago >= MOST_WEEKS ? 'not trained in four weeks' : `not trained for ${Math.floor(ago)} weeks`}`,
      );
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

/** Where a newcomer begins on a ladder. */
const ENTRY_LEVEL = 1;

function picksFor(
  request: SuggestRequest,
  client: SuggestClient,
  slot: Slot,
  all: readonly { movement: MovementSummary; openness: Openness }[],
  known: Known,
): Pick[] {
  const { readyFor, passed, tooHard, downFrom, above } = progressIn(request, client, known);
  const done = (id: string): boolean => client.sets[id] !== undefined;
  return all
    .filter(({ movement: { id, role } }) => slot.roles.includes(role) && !(above.has(id) && !readyFor.has(id)))
    .map(({ movement, openness }): Pick => {
      const { id, level } = movement;
      const own = !isAround(slot);
      const before = readyFor.get(id);
      let worth = openness === 'care' ? SUGGEST_WORTH.care : 0;
      if (own) worth += SUGGEST_WORTH.compound * Math.min(2, movement.muscles.prime.length - 1);
      let because = 'New, near the easy end';
      if (tooHard.has(id)) {
        worth += SUGGEST_WORTH.tooHard;
        because = 'Too hard last time';
      } else if (own && downFrom.has(id)) {
        worth += SUGGEST_WORTH.ready;
        because = 'A rung down: the one above was too hard last time';
      } else if (own && before !== undefined) {
        worth += SUGGEST_WORTH.ready;
        because = 'Ready for this rung';
      } else if (done(id)) {
        worth += SUGGEST_WORTH.known + (passed.has(id) ? SUGGEST_WORTH.below : 0);
        because = passed.has(id) ? 'A rung below the last one' : 'The rung of last time';
      } else worth += SUGGEST_WORTH.levelOff * Math.abs(level - ENTRY_LEVEL);
      if (openness === 'care') because += ', with care';
      return { movement, openness, worth, because };
    })
    .sort((a, b) => b.worth - a.worth || (a.movement.id < b.movement.id ? -1 : 1));
}

/** What the policy of progress says of everything that a client has done. */
function progressIn(request: SuggestRequest, client: SuggestClient, known: Known) {
  const { ladder, find } = known;
  /** Rungs whose sign is met, and the one below each. */
  const readyFor = new Map<string, string>();
  const passed = new Set<string>();
  const tooHard = new Set<string>();
  const downFrom = new Set<string>();
  /** Rungs above what was done last, which nobody comes to but by their sign. */
  const above = new Set<string>();
  const done = Object.keys(client.sets).filter((id) => find(id));
  for (const id of done) {
    const movement = find(id);
    const harder = ladder.rungs.get(id)?.harder ?? [];
    if (harder.some(({ to }) => client.sets[to])) passed.add(id);
    for (const to of reach(ladder, id, ['harder'], FAR).keys()) if (!client.sets[to]) above.add(to);
    const step = movement && laneFor(laneRequest(request, client, movement, known)).step;
    if (step?.kind === 'rung-up' && step.to !== null && !client.sets[step.to]) readyFor.set(step.to, id);
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
  return lines;
}

const laneRequest = (
  { purpose, kit, faultOf }: SuggestRequest,
  { id: clientId, standing, sets }: SuggestClient,
  movement: MovementSummary,
  { ladder, find }: Known,
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

/** Slot after slot, the few best partial sessions. */
function beam(
  request: SuggestRequest,
  slots: readonly Slot[],
  known: Known,
  open: ReturnType<typeof openFor>,
  context: PlanContext,
  reasons: string[],
): Line[] {
  const locked = request.blocks.flatMap(({ items }) => items).filter((item) => item.locked);
  const taken = new Set(locked.flatMap(({ lanes }) => lanes.map(({ movementId }) => movementId)));
  let states: State[] = [{ lines: [], worth: 0, muscles: new Set(), used: taken }];
  const cache = new Map<string, Line[]>();
  for (const slot of slots) {
    const key = `${slot.kind} ${slot.pattern}`;
    let choices = cache.get(key);
    if (!choices) {
      const byClient: Picks = new Map(
        request.clients.map((client) => [
          client.id,
          picksFor(request, client, slot, open.get(client.id)?.get(slot.pattern) ?? [], known),
        ]),
      );
      for (const client of request.clients)
        if (byClient.get(client.id)?.length === 0) reasons.push(closedWords(request, client, slot));
      choices = lineChoices(slot, byClient, request, known, context);
      cache.set(key, choices);
    }
    const next = states.flatMap((state) => {
      const fresh = (choices ?? []).filter(({ picks }) => picks.every(({ pick }) => !state.used.has(pick.movement.id)));
      return fresh.length === 0 ? [state] : fresh.map((line) => extended(state, line));
    });
    states = next.sort((a, b) => b.worth - a.worth).slice(0, BEAM);
  }
  return states[0]?.lines ?? [];
}

function extended(state: State, line: Line): State {
  const prime = line.picks.flatMap(({ pick }) => pick.movement.muscles.prime);
  const around = isAround(line.slot);
  const common = prime.length === 0 ? 0 : prime.filter((muscle) => state.muscles.has(muscle)).length / prime.length;
  return {
    lines: [...state.lines, line],
    worth: state.worth + line.worth + common * (around ? SUGGEST_WORTH.answers : SUGGEST_WORTH.sameMuscles),
    muscles: around ? state.muscles : new Set([...state.muscles, ...prime]),
    used: new Set([...state.used, ...line.picks.map(({ pick }) => pick.movement.id)]),
  };
}

/** Why somebody has nothing in a pattern: the limits that close it, or the kit and the room. */
function closedWords({ movements }: SuggestRequest, client: SuggestClient, slot: Slot): string {
  const all = movements.filter((movement) => movement.pattern === slot.pattern && slot.roles.includes(movement.role));
  const closing = new Set(
    all.flatMap(({ demands }) => {
      const fit = fitFor(demands, client.standing.limits);
      return fit.status === 'closed' ? fit.because : [];
    }),
  );
  const why =
    closing.size > 0 ? `closed by ${[...closing].slice(0, 2).join('; ')}` : 'nothing fits the kit and the room';
  return `${client.name} leaves out ${inWords(slot.pattern)}: ${why}. What a limit means is for a clinician to say.`;
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
        return {
          ...lane,
          sets: light ? 1 : lane.sets,
          rest: light ? Math.min(lane.rest, 10) : lane.rest,
          why: `${pick.because}. ${lane.why}`.slice(0, 400),
        };
      }),
    };
    blockOf(slot.kind).items.push(item);
  }
  return blocks;
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

/** Brings the minutes under the slot: a set less where there are most, then shorter rests, then an item less; or adds sets while there is room. */
function fit(request: SuggestRequest, start: readonly Block[], context: PlanContext, reasons: string[]): Block[] {
  const slot = request.minutes * 60;
  let blocks = [...start];
  const seconds = () => secondsOf(timelineOf({ blocks }, context));
  const main = (block: Block) => !isAround(block);
  const change = (item: PlanItem, by: (lane: PlanLane) => Partial<PlanLane>): void => {
    blocks = blocks.map((block) => ({
      ...block,
      items: block.items.map((one) =>
        one === item ? { ...one, lanes: one.lanes.map((lane) => ({ ...lane, ...by(lane) })) } : one,
      ),
    }));
  };
  const setsOf = (item: PlanItem) => Math.max(...item.lanes.map(({ sets }) => sets));
  const free = () =>
    blocks
      .filter(main)
      .flatMap(({ items }) => items)
      .filter((item) => !item.locked);
  const most = () => free().toSorted((a, b) => setsOf(b) - setsOf(a))[0];
  const rests = (item: PlanItem) => item.lanes.map((lane) => shorterRest(lane, request.purpose, context));
  let dropped = 0;
  let shortened = false;
  while (seconds() > slot) {
    const item = most();
    const tight = free().find((one) => one.lanes.some(({ rest }, i) => (rests(one)[i] ?? rest) < rest));
    if (item && setsOf(item) > 2) change(item, ({ sets }) => ({ sets: Math.max(1, sets - 1) }));
    else if (tight) {
      change(tight, (lane) => ({ rest: shorterRest(lane, request.purpose, context) }));
      shortened = true;
    } else {
      const victim = free().at(-1) ?? blocks.flatMap(({ items }) => items).findLast((one) => !one.locked);
      if (!victim) break;
      blocks = blocks
        .map((block) => ({ ...block, items: block.items.filter((one) => one !== victim) }))
        .filter(({ items }) => items.length > 0);
      dropped += 1;
    }
  }
  if (shortened) reasons.push('Shorter rests, to end on time');
  if (dropped > 0) reasons.push(`${dropped} left out, to end on time`);
  for (let grown = true; grown;) {
    grown = false;
    for (const item of free().toSorted((a, b) => setsOf(a) - setsOf(b))) {
      const window = (id: string) => context.find(id)?.dose.windows[request.purpose]?.sets[1] ?? MOST_SETS;
      if (item.lanes.some(({ movementId, sets }) => sets >= Math.min(MOST_SETS, window(movementId)))) continue;
      const before = blocks;
      change(item, ({ sets }) => ({ sets: sets + 1 }));
      if (seconds() <= slot - 30) {
        grown = true;
        break;
      }
      blocks = before;
    }
  }
  return blocks;
}
