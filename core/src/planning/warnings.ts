/** What is wrong with a plan, each with a change that mends it where one is known. Nothing is changed by itself. */
import { atHand, type Load, loadsFor, nearestLoads, standInsFor } from '../dosage/loads.js';
import { equalEffort } from '../dosage/strength.js';
import type { Ladder } from '../ladder/graph.js';
import { kitCounts, usableOption } from '../movement/kit.js';
import type { KitPiece } from '../movement/kit-schema.js';
import { type Fit, fitWith, type LimitMet } from '../movement/limits.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { KitItem, Muscle, Purpose } from '../movement/vocabulary.js';
import { closingsOf, fitNow } from '../progress/fit.js';
import type { Closing } from '../progress/reason.js';
import { movementsOf, variantsOf } from './by-set.js';
import { coverageOf, pushPull, totalsOfPlan } from './coverage.js';
import { laneFor } from './lane-for.js';
import { buildsOn, wantsFreshness } from './order-plan.js';
import { goesOverhead, SHOULDERS } from './overhead.js';
import {
  type Block,
  inRounds,
  isAround,
  mapLane,
  type Plan,
  type PlanContext,
  type PlanItem,
  type PlanLane,
  setsOfLane,
} from './plan.js';
import { loadExists, shortagesOf } from './shortage.js';
import { mayRotate } from './stations-of.js';
import type { SuggestClient } from './suggest.js';
import { secondsOf, timelineOf } from './timeline.js';
import { turnWarnings } from './turn-warnings.js';

/** What a change does. */
export type FixDoes =
  | { code: 'take'; movementId: string }
  | { code: 'leave-out' }
  /** Rounds that differ from the line are as the line has it. */
  | { code: 'same-rounds' }
  /** As much as fits into a turn. */
  | { code: 'amount'; amount: number; clientId: string }
  /** Another load, and the reps that are the same effort with it where they differ. */
  | { code: 'load'; to: string; amount: number | null; clientId: string | null }
  | { code: 'stations' }
  | { code: 'take-off'; sets: number; lines: number }
  | { code: 'first' }
  | { code: 'alone-first' }
  | { code: 'add'; movementIds: string[] }
  | { code: 'less-pushing'; most: number };

/** What is wrong. */
export type Wrong =
  | { code: 'gone'; movementId: string }
  | { code: 'closed'; movementId: string; clientId: string; because: LimitMet[]; near: boolean }
  | { code: 'hurt'; movementId: string; clientId: string }
  | { code: 'no-kit'; movementId: string }
  | { code: 'no-load'; movementId: string; to: string }
  /** Several people want one piece; `what` as it is read. */
  | { code: 'short'; clientIds: string[]; what: string; wanted: number; there: number }
  /** A turn that takes longer than the clock gives it. */
  | { code: 'no-time'; movementId: string; seconds: number; every: number }
  | { code: 'over'; seconds: number; minutes: number }
  | { code: 'tired-legs'; movementId: string }
  | { code: 'combined-too-soon' }
  | { code: 'cold-shoulders'; movementId: string }
  | { code: 'no-warm-up' }
  | { code: 'no-stretch'; muscle: Muscle; sets: number }
  | { code: 'push-pull'; clientId: string; push: number; pull: number };

export interface Fix {
  does: FixDoes;
  blocks: Block[];
}

export interface Warning {
  /** Stable for the same matter, for lists. */
  id: string;
  /** `stop`: must not be done so; `fix`: does not work out so; `polish`: could be better. */
  severity: 'stop' | 'fix' | 'polish';
  wrong: Wrong;
  /** The item it is about; null for the whole plan. */
  itemId: string | null;
  fixes: Fix[];
}

export type WarnClient = Pick<SuggestClient, 'id' | 'name' | 'standing' | 'sets'>;

export interface WarnContext extends PlanContext {
  clients: readonly WarnClient[];
  movements: readonly MovementSummary[];
  kit: readonly KitPiece[];
  newId: () => string;
  ladder: Pick<Ladder, 'rungs'>;
  /** The nearest open movement for a client, where the ladder knows one. */
  instead: (clientId: string, movementId: string) => MovementSummary | undefined;
}

type Plain = Pick<Plan, 'blocks' | 'minutes' | 'clientIds' | 'purpose'>;

/** A plan's warnings, most serious first. */
export function warningsOf(plan: Plain, context: WarnContext): Warning[] {
  const all = [
    ...limitWarnings(plan, context),
    ...painWarnings(plan, context),
    ...kitWarnings(plan, context),
    ...turnWarnings(plan, context),
    ...overWarnings(plan, context),
    ...freshnessWarnings(plan, context),
    ...combinationWarnings(plan),
    ...warmUpWarnings(plan, context),
    ...stretchWarnings(plan, context),
    ...balanceWarnings(plan, context),
  ];
  const rank = { stop: 0, fix: 1, polish: 2 };
  return all.sort((a, b) => rank[a.severity] - rank[b.severity]);
}

function* lanesOf(plan: Plain): Generator<{ block: Block; item: PlanItem; lane: PlanLane }> {
  for (const block of plan.blocks)
    for (const item of block.items) for (const lane of item.lanes) yield { block, item, lane };
}

function limitWarnings(plan: Plain, context: WarnContext): Warning[] {
  const counts = kitCounts(context.kit);
  return [...lanesOf(plan)].flatMap(({ item, lane }): Warning[] => {
    const movement = context.find(lane.movementId);
    const other = lane.withId === null ? undefined : context.find(lane.withId);
    const client = context.clients.find(({ id }) => id === lane.clientId);
    if (!movement)
      return [
        {
          id: `gone ${item.id} ${lane.clientId}`,
          severity: 'fix',
          wrong: { code: 'gone', movementId: lane.movementId },
          itemId: item.id,
          fixes: [],
        },
      ];
    // What hurt is named as that, once.
    if (!client || hurtIn(lane, client) !== undefined) return [];
    const fitIn = (one: MovementSummary | undefined, item: KitItem | undefined) =>
      one ? [fitWith(one, client.standing.limits, counts, item)] : [];
    const isClosed = ({ status }: Fit) => status === 'closed';
    const fits = [movement, other].flatMap((one) => fitIn(one, lane.load?.item));
    if (!fits.some(isClosed))
      return roundWarnings(plan, item, lane, client, (one, load) => fitIn(one, load?.item).find(isClosed), context);
    const because = fits.flatMap((fit) => fit.because);
    const instead = takingInstead(plan, item, client, lane, closingsOf(because), context);
    return [
      {
        id: `limit ${item.id} ${client.id}`,
        severity: 'stop',
        wrong: {
          code: 'closed',
          movementId: movement.id,
          clientId: client.id,
          because,
          near: instead.length > 0,
        },
        itemId: item.id,
        fixes: [...instead, leavingOut(plan, item, client.id)],
      },
    ];
  });
}

/** Rounds with a movement or a weight of their own that is closed, where the line itself is open. */
function roundWarnings(
  plan: Plain,
  item: PlanItem,
  lane: PlanLane,
  client: WarnClient,
  closed: (movement: MovementSummary | undefined, load: PlanLane['load']) => Fit | undefined,
  context: WarnContext,
): Warning[] {
  const wrong = variantsOf(lane)
    .slice(1)
    .flatMap(({ movementId, load }) => {
      const fit = closed(context.find(movementId), load);
      return fit ? [{ movementId, because: fit.because }] : [];
    });
  const [first] = wrong;
  if (!first) return [];
  return [
    {
      id: `limit ${item.id} ${client.id}`,
      severity: 'stop',
      wrong: { code: 'closed', movementId: first.movementId, clientId: client.id, because: first.because, near: true },
      itemId: item.id,
      fixes: [sameRounds(plan, item, client.id), leavingOut(plan, item, client.id)],
    },
  ];
}

/** Every round as the line has it. */
function sameRounds(plan: Plain, item: PlanItem, clientId: string): Fix {
  const blocks = mapLane(plan.blocks, item.id, clientId, ({ bySet: _, ...line }) => line);
  return { does: { code: 'same-rounds' }, blocks };
}

/** The nearest open movement in the place of one that cannot be done; none where nothing is near. */
function takingInstead(
  plan: Plain,
  item: PlanItem,
  client: WarnClient,
  { movementId }: PlanLane,
  by: Closing[],
  context: WarnContext,
): Fix[] {
  const instead = context.instead(client.id, movementId);
  if (!instead) return [];
  const blocks = mapLane(plan.blocks, item.id, client.id, (old) => ({
    ...ownLane(context, client, instead, plan.purpose),
    sets: old.sets,
    rest: old.rest,
    why: [{ code: 'instead', movementId, by }],
  }));
  return [{ does: { code: 'take', movementId: instead.id }, blocks }];
}

/** What a client would do of a movement, from their own past. */
const ownLane = (
  context: WarnContext,
  { id, standing, sets }: WarnClient,
  movement: MovementSummary,
  purpose: Purpose,
) =>
  laneFor({
    clientId: id,
    standing,
    movement,
    purpose,
    sets,
    kit: context.kit,
    ladder: context.ladder,
    find: context.find,
  }).lane;

/** The movement of a line that hurt this client; undefined where none did. */
const hurtIn = (lane: PlanLane, { standing }: SuggestClient): string | undefined =>
  movementsOf(lane).find((id) => standing.hurtBefore.includes(id));

/** A movement that hurt stays possible by hand, and is never passed over in silence. */
function painWarnings(plan: Plain, context: WarnContext): Warning[] {
  return [...lanesOf(plan)].flatMap(({ item, lane }): Warning[] => {
    const client = context.clients.find(({ id }) => id === lane.clientId);
    const hurt = client && hurtIn(lane, client);
    if (!client || hurt === undefined) return [];
    const instead = takingInstead(plan, item, client, lane, [{ code: 'hurt-before' }], context);
    return [
      {
        id: `pain ${item.id} ${client.id}`,
        severity: 'stop',
        wrong: { code: 'hurt', movementId: hurt, clientId: client.id },
        itemId: item.id,
        fixes: [...instead, leavingOut(plan, item, client.id)],
      },
    ];
  });
}

/** Rounds and drops with a weight that is not here, where that of the line is. */
function roundKitWarnings(plan: Plain, item: PlanItem, lane: PlanLane, context: WarnContext): Warning[] {
  const drops = (lane.drops ?? []).map(({ load }) => ({ ...lane, load }));
  const missing = [...variantsOf(lane).slice(1), ...drops].find((one) => !loadExists(one, context.kit, context));
  if (!missing?.load) return [];
  const blocks = mapLane(plan.blocks, item.id, lane.clientId, ({ bySet: _, drops: __, ...line }) => line);
  return [
    {
      id: `load ${item.id} ${lane.clientId}`,
      severity: 'fix',
      itemId: item.id,
      wrong: { code: 'no-load', movementId: missing.movementId, to: missing.load.label },
      fixes: [{ does: { code: 'same-rounds' }, blocks }],
    },
  ];
}

/** The plan without one person on one line; lines and blocks that held nothing else go with them. */
function leavingOut(plan: Plain, item: PlanItem, clientId: string): Fix {
  const blocks = plan.blocks
    .map((block) => ({
      ...block,
      items: block.items
        .map((one) =>
          one.id === item.id ? { ...one, lanes: one.lanes.filter((lane) => lane.clientId !== clientId) } : one,
        )
        .filter(({ lanes }) => lanes.length > 0),
    }))
    .filter(({ items }, i) => items.length > 0 || plan.blocks[i]?.items.length === 0);
  return { does: { code: 'leave-out' }, blocks };
}

/** The same lane with another load, at the same effort where a formula can say what that is. */
function withLoad(lane: PlanLane, load: Load): PlanLane {
  const same =
    lane.load?.kg && load.kg !== null ? equalEffort({ kg: lane.load.kg, reps: lane.amount, left: 2 }, load.kg) : null;
  const { drops: _, parts, ...plain } = lane;
  const amount = parts ? lane.amount : (same?.aim ?? lane.amount);
  return { ...plain, load, amount, ...(parts && { parts }) };
}

const taking = (lane: PlanLane, load: Load, clientId: string | null): FixDoes => {
  const { amount } = withLoad(lane, load);
  return { code: 'load', to: load.label, amount: amount === lane.amount ? null : amount, clientId };
};

function kitWarnings(plan: Plain, context: WarnContext): Warning[] {
  const warnings: Warning[] = [];
  const counts = kitCounts(context.kit);
  for (const { item, lane } of lanesOf(plan)) {
    const movement = context.find(lane.movementId);
    if (!movement) continue;
    const base = { itemId: item.id, severity: 'fix' as const };
    const client = context.clients.find(({ id }) => id === lane.clientId);
    if (usableOption(movement.kit, counts) === undefined)
      warnings.push({
        ...base,
        id: `kit ${item.id} ${lane.clientId}`,
        wrong: { code: 'no-kit', movementId: movement.id },
        fixes: [
          ...(client ? takingInstead(plan, item, client, lane, [{ code: 'kit' }], context) : []),
          leavingOut(plan, item, lane.clientId),
        ],
      });
    else if (lane.load && !loadExists(lane, context.kit, context)) {
      const near = standInsFor(atHand(loadsFor(movement.kit, context.kit), lane.load.item), lane.load.kg ?? 0);
      warnings.push({
        ...base,
        id: `load ${item.id} ${lane.clientId}`,
        wrong: { code: 'no-load', movementId: movement.id, to: lane.load.label },
        fixes: near.map((load) => ({
          does: taking(lane, load, null),
          blocks: mapLane(plan.blocks, item.id, lane.clientId, (old) => withLoad(old, load)),
        })),
      });
    } else warnings.push(...roundKitWarnings(plan, item, lane, context));
  }
  // In a circuit people go round as stations, each at another line.
  for (const block of plan.blocks.filter((one) => one.kind !== 'circuit' || !mayRotate(one)))
    for (const item of block.items)
      for (const { what, wanted, there, clientIds } of shortagesOf(item.lanes, context.kit, context)) {
        const last = item.lanes.find(({ clientId }) => clientId === clientIds.at(-1));
        const others = last?.load
          ? nearestLoads(
              atHand(loadsFor(context.find(last.movementId)?.kit ?? [], context.kit), last.load.item),
              last.load.kg ?? 0,
            )
          : [];
        warnings.push({
          id: `short ${item.id} ${what}`,
          severity: 'fix',
          itemId: item.id,
          wrong: { code: 'short', clientIds, what, wanted, there },
          fixes: [
            ...takingTurns(plan, block),
            ...(last
              ? others.map((load) => ({
                  does: taking(last, load, last.clientId),
                  blocks: mapLane(plan.blocks, item.id, last.clientId, (old) => withLoad(old, load)),
                }))
              : []),
          ],
        });
      }
  return warnings;
}

/** Lines that several people do at once, gone round as stations instead: nobody waits for a piece that another one has. */
function takingTurns(plan: Plain, block: Block): Fix[] {
  if (block.kind === 'circuit' || !mayRotate(block)) return [];
  const rounds = Math.max(1, ...block.items.flatMap(({ lanes }) => lanes.map((lane) => setsOfLane(block, lane))));
  return [
    {
      does: { code: 'stations' },
      blocks: plan.blocks.map((one) => (one === block ? { ...one, kind: 'circuit', rounds, workSeconds: null } : one)),
    },
  ];
}

function overWarnings(plan: Plain, context: WarnContext): Warning[] {
  const { over } = totalsOfPlan(plan, context);
  if (over === 0) return [];
  // A better order may save some of it: that is worked out on request, because it can take longer than a keystroke.
  const cut = cutToFit(plan, context);
  return [
    {
      id: 'over',
      severity: 'fix',
      itemId: null,
      wrong: { code: 'over', seconds: over, minutes: plan.minutes },
      fixes: cut ? [cut] : [],
    },
  ];
}

/** Sets that an item keeps while another could be left out instead. */
const WORTHWHILE_SETS = 2;

/**
 * Takes off sets, from the items that have most and come last, down to two each; then whole lines from the end, and the last sets at the very last.
 * Locked lines stay. Null when even that is too long.
 */
function cutToFit(plan: Plain, context: WarnContext): Fix | null {
  let blocks = plan.blocks;
  let sets = 0;
  let lines = 0;
  while (secondsOf(timelineOf({ blocks }, context)) > plan.minutes * 60) {
    const fewer = lessSets(blocks, WORTHWHILE_SETS);
    const shorter = fewer ? null : withoutLast(blocks);
    const least = fewer ?? shorter ?? lessSets(blocks, 1);
    if (!least) return null;
    if (least === shorter) lines += 1;
    else sets += 1;
    blocks = least;
  }
  return { does: { code: 'take-off', sets, lines }, blocks };
}

/** One set less of what has most, the last of those; null when nothing has more than `keep`. */
function lessSets(blocks: readonly Block[], keep: number): Block[] | null {
  const most = (block: Block) =>
    inRounds(block)
      ? block.rounds
      : Math.max(
          0,
          ...block.items.filter(({ locked }) => !locked).flatMap(({ lanes }) => lanes.map(({ sets }) => sets)),
        );
  const block = blocks.toReversed().reduce((a, b) => (most(b) > most(a) ? b : a));
  const sets = most(block);
  if (sets <= keep) return null;
  const victim = block.items.findLast((item) => !item.locked && item.lanes.some((lane) => lane.sets === sets));
  return blocks.map((one) =>
    one !== block
      ? one
      : inRounds(one)
        ? { ...one, rounds: sets - 1 }
        : {
            ...one,
            items: one.items.map((item) =>
              item === victim
                ? { ...item, lanes: item.lanes.map((lane) => ({ ...lane, sets: Math.min(lane.sets, sets - 1) })) }
                : item,
            ),
          },
  );
}

/** Without the last line of the work that is not locked; null when only one is left. */
function withoutLast(blocks: readonly Block[]): Block[] | null {
  const lines = blocks.filter((block) => !isAround(block)).flatMap(({ items }) => items);
  const victim = lines.findLast(({ locked }) => !locked);
  if (!victim || lines.length < 2) return null;
  return blocks
    .map((block) => ({ ...block, items: block.items.filter((item) => item !== victim) }))
    .filter(({ items }) => items.length > 0);
}

const EASY_FIRST = new Set(['warm-up', 'skill']);
/** Here tired legs do not matter. */
const LYING_LAST = new Set(['trunk', 'stretch']);

function freshnessWarnings(plan: Plain, context: WarnContext): Warning[] {
  const warnings: Warning[] = [];
  let worked = false;
  for (const block of plan.blocks)
    for (const item of block.items) {
      const fresh = wantsFreshness(item, context);
      if (fresh && worked && !EASY_FIRST.has(block.kind) && !LYING_LAST.has(block.kind)) {
        const at = plan.blocks.findIndex(({ kind }) => !EASY_FIRST.has(kind));
        const without = plan.blocks.map((one) => ({ ...one, items: one.items.filter((other) => other !== item) }));
        const moved = without
          .map((one, i) => (i === at ? { ...one, items: [item, ...one.items] } : one))
          .filter(({ items }) => items.length > 0);
        warnings.push({
          id: `fresh ${item.id}`,
          severity: 'fix',
          itemId: item.id,
          wrong: { code: 'tired-legs', movementId: item.lanes[0]?.movementId ?? '' },
          fixes: [{ does: { code: 'first' }, blocks: moved }],
        });
      }
      if (!EASY_FIRST.has(block.kind) && !fresh) worked = true;
    }
  return warnings;
}

function combinationWarnings(plan: Plain): Warning[] {
  return plan.blocks.flatMap((block) =>
    block.items.flatMap((item, i): Warning[] => {
      if (item.lanes.every(({ withId }) => withId === null)) return [];
      const parts = buildsOn(block.items, item);
      if (parts.filter((at) => at < i).length >= 2) return [];
      return [
        {
          id: `combination ${item.id}`,
          severity: 'fix',
          itemId: item.id,
          wrong: { code: 'combined-too-soon' },
          fixes:
            parts.length >= 2
              ? [
                  {
                    does: { code: 'alone-first' as const },
                    blocks: plan.blocks.map((one) =>
                      one === block
                        ? {
                            ...one,
                            items: one.items.filter((other) => other !== item).toSpliced(Math.max(...parts), 0, item),
                          }
                        : one,
                    ),
                  },
                ]
              : [],
        },
      ];
    }),
  );
}

/** A movement that everybody may do, working the muscles wanted, with no kit. */
function openTo(
  context: WarnContext,
  plan: Plain,
  roles: readonly string[],
  muscles: readonly Muscle[],
): MovementSummary | undefined {
  const counts = kitCounts(context.kit);
  return context.movements
    .filter(({ role, kit }) => roles.includes(role) && kit.length === 0)
    .filter((movement) => context.clients.every(({ standing }) => fitNow(standing, counts, movement).status === 'open'))
    .filter(({ muscles: { prime } }) => prime.some((muscle) => muscles.includes(muscle)))
    .filter(
      ({ id }) =>
        !plan.blocks.some(({ items }) => items.some(({ lanes }) => lanes.some(({ movementId }) => movementId === id))),
    )
    .toSorted((a, b) => a.level - b.level || (a.id < b.id ? -1 : 1))[0];
}

/** The plan with a movement for everybody added to a block of a kind, at the front or the end of the plan. */
function adding(plan: Plain, context: WarnContext, kind: 'warm-up' | 'stretch', movement: MovementSummary): Fix {
  const item: PlanItem = {
    id: context.newId(),
    locked: false,
    tied: false,
    lanes: context.clients.map((client) => ({
      ...ownLane(context, client, movement, 'mobility'),
      sets: 1,
      rest: 0,
      why: [{ code: kind === 'warm-up' ? ('prepares' as const) : ('eases' as const) }],
    })),
  };
  const has = plan.blocks.some((block) => block.kind === kind);
  const fresh: Block = { id: context.newId(), kind, rounds: 1, workSeconds: null, items: [item] };
  const blocks = has
    ? plan.blocks.map((block) => (block.kind === kind ? { ...block, items: [...block.items, item] } : block))
    : kind === 'warm-up'
      ? [fresh, ...plan.blocks]
      : [...plan.blocks, fresh];
  return { does: { code: 'add', movementIds: [movement.id] }, blocks };
}

const primeOf = (plan: Plain, kinds: (kind: Block['kind']) => boolean, context: PlanContext): Set<Muscle> =>
  new Set(
    [...lanesOf(plan)].flatMap(({ block, lane }) =>
      kinds(block.kind) ? (context.find(lane.movementId)?.muscles.prime ?? []) : [],
    ),
  );

function warmUpWarnings(plan: Plain, context: WarnContext): Warning[] {
  const overhead = [...lanesOf(plan)].find(
    ({ block, lane }) => !isAround(block) && goesOverhead(context.find(lane.movementId) ?? { demands: {} }),
  );
  const prepared = primeOf(plan, (kind) => kind === 'warm-up', context);
  if (overhead && !SHOULDERS.some((muscle) => prepared.has(muscle))) {
    const movement = openTo(context, plan, ['mobility', 'drill'], SHOULDERS);
    return [
      {
        id: 'warm-up overhead',
        severity: 'fix',
        itemId: overhead.item.id,
        wrong: { code: 'cold-shoulders', movementId: overhead.lane.movementId },
        fixes: movement ? [adding(plan, context, 'warm-up', movement)] : [],
      },
    ];
  }
  const works = [...lanesOf(plan)].some(({ block }) => !isAround(block));
  if (!works || prepared.size > 0) return [];
  const movement = openTo(context, plan, ['mobility', 'drill'], [...primeOf(plan, () => true, context)]);
  return [
    {
      id: 'warm-up none',
      severity: 'polish',
      itemId: null,
      wrong: { code: 'no-warm-up' },
      fixes: movement ? [adding(plan, context, 'warm-up', movement)] : [],
    },
  ];
}

/** Muscles that are worth a stretch when they did this many sets. */
const MUCH = 6;

function stretchWarnings(plan: Plain, context: WarnContext): Warning[] {
  const sets = new Map<Muscle, number>();
  for (const { block, lane } of lanesOf(plan))
    if (!isAround(block))
      for (const muscle of context.find(lane.movementId)?.muscles.prime ?? [])
        sets.set(muscle, (sets.get(muscle) ?? 0) + setsOfLane(block, lane) / plan.clientIds.length);
  const eased = primeOf(plan, (kind) => kind === 'stretch', context);
  const [worked] = [...sets].filter(([muscle, n]) => n >= MUCH && !eased.has(muscle)).toSorted((a, b) => b[1] - a[1]);
  if (!worked) return [];
  const movement = openTo(context, plan, ['stretch'], [worked[0]]);
  return movement
    ? [
        {
          id: `stretch ${worked[0]}`,
          severity: 'polish',
          itemId: null,
          wrong: { code: 'no-stretch', muscle: worked[0], sets: Math.round(worked[1]) },
          fixes: [adding(plan, context, 'stretch', movement)],
        },
      ]
    : [];
}

/** Pushing may exceed pulling by this much before it is said. */
const LOPSIDED = 1.5;

const BACK: readonly Muscle[] = ['lats', 'upper-back', 'shoulder-blades'];

/** Sets of one added line, at most. */
const MOST_ADDED = 4;
/** A newcomer begins here; what is above on a ladder is come to by its sign. */
const ENTRY_LEVEL = 1;

/** Lines of pulling for one client, those that they know first, until so many sets are added; none where too little is open. */
function morePulling(plan: Plain, context: WarnContext, clientId: string, sets: number): Fix[] {
  const client = context.clients.find(({ id }) => id === clientId);
  if (!client) return [];
  const counts = kitCounts(context.kit);
  const here = new Set([...lanesOf(plan)].map(({ lane }) => lane.movementId));
  const knows = ({ id }: MovementSummary) => client.sets[id] !== undefined;
  const rows = context.movements
    .filter(({ id, pattern, role }) => pattern === 'pull' && role === 'strength' && !here.has(id))
    // A curl is no answer to a press.
    .filter(({ muscles: { prime } }) => prime.some((muscle) => BACK.includes(muscle)))
    .filter((movement) => knows(movement) || movement.level <= ENTRY_LEVEL)
    .filter((movement) => fitNow(client.standing, counts, movement).status === 'open')
    .toSorted((a, b) => Number(knows(b)) - Number(knows(a)) || a.level - b.level || (a.id < b.id ? -1 : 1))
    .slice(0, Math.ceil(sets / MOST_ADDED));
  if (rows.length * MOST_ADDED < sets) return [];
  const items = rows.map((movement, i): PlanItem => {
    const lane = ownLane(context, client, movement, plan.purpose);
    const left = Math.min(MOST_ADDED, sets - i * MOST_ADDED);
    return { id: context.newId(), locked: false, tied: false, lanes: [{ ...lane, sets: left }] };
  });
  const at = plan.blocks.findLastIndex(({ kind }) => kind === 'strength');
  const fresh: Block = { id: context.newId(), kind: 'strength', rounds: 1, workSeconds: null, items };
  const before = plan.blocks.findIndex(({ kind }) => kind === 'stretch');
  const blocks =
    at >= 0
      ? plan.blocks.map((block, i) => (i === at ? { ...block, items: [...block.items, ...items] } : block))
      : plan.blocks.toSpliced(before < 0 ? plan.blocks.length : before, 0, fresh);
  return [{ does: { code: 'add', movementIds: rows.map(({ id }) => id) }, blocks }];
}

/** The plan with at most so many sets of pushing for a client: a set less of what has most, and what would have none goes. */
function lessPushing(plan: Plain, context: WarnContext, clientId: string, most: number): Fix {
  const pushes = ({ lane, block }: { lane: PlanLane; block: Block }) =>
    lane.clientId === clientId && !isAround(block) && context.find(lane.movementId)?.pattern === 'push';
  let blocks: Block[] = [...plan.blocks];
  for (;;) {
    const all = [...lanesOf({ ...plan, blocks })].filter(pushes);
    if (all.reduce((sum, { block, lane }) => sum + setsOfLane(block, lane), 0) <= most) break;
    const [heaviest] = all.toSorted((a, b) => setsOfLane(b.block, b.lane) - setsOfLane(a.block, a.lane));
    if (!heaviest) break;
    const { block, item, lane } = heaviest;
    blocks =
      inRounds(block) || lane.sets <= 1
        ? leavingOut({ ...plan, blocks }, item, clientId).blocks
        : mapLane(blocks, item.id, clientId, (old) => ({ ...old, sets: old.sets - 1 }));
  }
  return { does: { code: 'less-pushing', most }, blocks };
}

function balanceWarnings(plan: Plain, context: WarnContext): Warning[] {
  return plan.clientIds.flatMap((clientId): Warning[] => {
    const [push, pull] = pushPull(coverageOf(plan, clientId, context));
    if (push < 3 || push <= pull * LOPSIDED) return [];
    return [
      {
        id: `push-pull ${clientId}`,
        severity: 'polish',
        itemId: null,
        wrong: { code: 'push-pull', clientId, push, pull },
        fixes: [
          ...morePulling(plan, context, clientId, Math.ceil(push / LOPSIDED) - pull),
          lessPushing(plan, context, clientId, Math.max(2, Math.floor(pull * LOPSIDED))),
        ],
      },
    ];
  });
}
