/** What is wrong with a plan, each with a change that mends it where one is known. Nothing is changed by itself. */
import { loadsFor, nearestLoads, standInsFor, type Load } from '../dosage/loads.js';
import { equalEffort } from '../dosage/strength.js';
import type { MovementSummary } from '../movement/summary.js';
import { kitCounts, usableOption, type KitPiece } from '../movement/kit.js';
import type { Ladder } from '../ladder/graph.js';
import { fitFor } from '../movement/limits.js';
import { fitNow } from '../progress/fit.js';
import type { SuggestClient } from './suggest.js';
import type { Muscle, Purpose } from '../movement/vocabulary.js';
import { label } from '../movement/words.js';
import { coverageOf, pushPull, totalsOfPlan } from './coverage.js';
import { laneFor } from './lane-for.js';
import { buildsOn, wantsFreshness } from './order-plan.js';
import {
  inRounds,
  isAround,
  setsOfLane,
  type Block,
  type Plan,
  type PlanContext,
  type PlanItem,
  type PlanLane,
} from './plan.js';
import { loadExists, shortagesOf } from './shortage.js';
import { minuteWords, secondsOf, timelineOf } from './timeline.js';

export interface Fix {
  words: string;
  blocks: Block[];
}

export interface Warning {
  /** Stable for the same matter, for lists. */
  id: string;
  /** `stop`: must not be done so; `fix`: does not work out so; `polish`: could be better. */
  severity: 'stop' | 'fix' | 'polish';
  words: string;
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

const mapItem = (blocks: readonly Block[], itemId: string, change: (item: PlanItem) => PlanItem): Block[] =>
  blocks.map((block) => ({
    ...block,
    items: block.items.map((item) => (item.id === itemId ? change(item) : item)),
  }));

const mapLane = (
  blocks: readonly Block[],
  itemId: string,
  clientId: string,
  change: (lane: PlanLane) => PlanLane,
): Block[] =>
  mapItem(blocks, itemId, (item) => ({
    ...item,
    lanes: item.lanes.map((lane) => (lane.clientId === clientId ? change(lane) : lane)),
  }));

/** A plan's warnings, most serious first. */
export function warningsOf(plan: Plain, context: WarnContext): Warning[] {
  const all = [
    ...limitWarnings(plan, context),
    ...painWarnings(plan, context),
    ...kitWarnings(plan, context),
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

const nameOf = (clients: readonly WarnClient[], id: string): string =>
  clients.find((client) => client.id === id)?.name ?? 'Somebody';

function* lanesOf(plan: Plain): Generator<{ block: Block; item: PlanItem; lane: PlanLane }> {
  for (const block of plan.blocks)
    for (const item of block.items) for (const lane of item.lanes) yield { block, item, lane };
}

function limitWarnings(plan: Plain, context: WarnContext): Warning[] {
  return [...lanesOf(plan)].flatMap(({ item, lane }): Warning[] => {
    const movement = context.find(lane.movementId);
    const other = lane.withId === null ? undefined : context.find(lane.withId);
    const client = context.clients.find(({ id }) => id === lane.clientId);
    if (!movement)
      return [
        {
          id: `gone ${item.id} ${lane.clientId}`,
          severity: 'fix',
          words: `${lane.movementId} is no longer in the library.`,
          itemId: item.id,
          fixes: [],
        },
      ];
    const fits = [movement, other].flatMap((one) =>
      one && client ? [fitFor(one.demands, client.standing.limits)] : [],
    );
    if (!client || !fits.some(({ status }) => status === 'closed')) return [];
    const instead = context.instead(client.id, movement.id);
    const because = fits.flatMap((fit) => fit.because).join('; ');
    return [
      {
        id: `limit ${item.id} ${client.id}`,
        severity: 'stop',
        words: `${movement.name} is closed for ${client.name}: ${because}.${instead ? '' : ' Nothing near it is open: leave it out, or ask a qualified clinician.'}`,
        itemId: item.id,
        fixes: [
          ...(instead
            ? [
                {
                  words: `Take ${instead.name}`,
                  blocks: mapLane(plan.blocks, item.id, client.id, (old) => ({
                    ...ownLane(context, client, instead, plan.purpose),
                    sets: old.sets,
                    rest: old.rest,
                    why: `Instead of ${movement.name}: ${because}.`.slice(0, 400),
                  })),
                },
              ]
            : []),
          leavingOut(plan, item, client.id),
        ],
      },
    ];
  });
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

/** A movement that hurt stays possible by hand, and is never passed over in silence. */
function painWarnings(plan: Plain, context: WarnContext): Warning[] {
  return [...lanesOf(plan)].flatMap(({ item, lane }): Warning[] => {
    const client = context.clients.find(({ id }) => id === lane.clientId);
    if (!client?.standing.hurtBefore.includes(lane.movementId)) return [];
    return [
      {
        id: `pain ${item.id} ${client.id}`,
        severity: 'stop',
        words: `${context.find(lane.movementId)?.name} hurt ${client.name} sharply when it was last done. Has a qualified clinician looked at it?`,
        itemId: item.id,
        fixes: [leavingOut(plan, item, client.id)],
      },
    ];
  });
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
  return { words: 'Leave it out', blocks };
}

/** The same lane with another load, at the same effort where a formula can say what that is. */
function withLoad(lane: PlanLane, load: Load): PlanLane {
  const same =
    lane.load?.kg && load.kg !== null ? equalEffort({ kg: lane.load.kg, reps: lane.amount, left: 2 }, load.kg) : null;
  return { ...lane, load, amount: same?.aim ?? lane.amount };
}

const loadWords = (lane: PlanLane, load: Load): string => {
  const { amount } = withLoad(lane, load);
  return `Take ${load.label}${amount === lane.amount ? '' : `, ${amount} reps for the same effort`}`;
};

function kitWarnings(plan: Plain, context: WarnContext): Warning[] {
  const warnings: Warning[] = [];
  const counts = kitCounts(context.kit);
  for (const { item, lane } of lanesOf(plan)) {
    const movement = context.find(lane.movementId);
    if (!movement) continue;
    const base = { itemId: item.id, severity: 'fix' as const };
    if (usableOption(movement.kit, counts) === undefined)
      warnings.push({
        ...base,
        id: `kit ${item.id} ${lane.clientId}`,
        words: `${movement.name}: its kit is not here.`,
        fixes: [],
      });
    else if (lane.load && !loadExists(lane, context.kit, context)) {
      const near = standInsFor(loadsFor(movement.kit, context.kit), lane.load.kg ?? 0);
      warnings.push({
        ...base,
        id: `load ${item.id} ${lane.clientId}`,
        words: `${movement.name}: ${lane.load.label} cannot be made with this kit.`,
        fixes: near.map((load) => ({
          words: loadWords(lane, load),
          blocks: mapLane(plan.blocks, item.id, lane.clientId, (old) => withLoad(old, load)),
        })),
      });
    }
  }
  for (const block of plan.blocks)
    for (const item of block.items)
      for (const { what, wanted, there, clientIds } of shortagesOf(item.lanes, context.kit, context)) {
        const last = item.lanes.find(({ clientId }) => clientId === clientIds.at(-1));
        const others = last?.load
          ? nearestLoads(loadsFor(context.find(last.movementId)?.kit ?? [], context.kit), last.load.kg ?? 0)
          : [];
        warnings.push({
          id: `short ${item.id} ${what}`,
          severity: 'fix',
          itemId: item.id,
          words: `${clientIds.map((id) => nameOf(context.clients, id)).join(' and ')} want ${what} at the same time: ${wanted} wanted, ${there} here.`,
          fixes: others.map((load) => ({
            words: `${nameOf(context.clients, last?.clientId ?? '')}: ${last ? loadWords(last, load).toLowerCase() : ''}`,
            blocks: last ? mapLane(plan.blocks, item.id, last.clientId, (old) => withLoad(old, load)) : plan.blocks,
          })),
        });
      }
  return warnings;
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
      words: `${minuteWords(over)} over the ${plan.minutes} minutes.`,
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
  const words = [
    ...(sets > 0 ? [`${sets} ${sets === 1 ? 'set' : 'sets'}`] : []),
    ...(lines > 0 ? [`${lines} ${lines === 1 ? 'line' : 'lines'}`] : []),
  ];
  return { words: `Take off ${words.join(' and ')}`, blocks };
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
        const name = context.find(item.lanes[0]?.movementId ?? '')?.name ?? '';
        const at = plan.blocks.findIndex(({ kind }) => !EASY_FIRST.has(kind));
        const without = plan.blocks.map((one) => ({ ...one, items: one.items.filter((other) => other !== item) }));
        const moved = without
          .map((one, i) => (i === at ? { ...one, items: [item, ...one.items] } : one))
          .filter(({ items }) => items.length > 0);
        warnings.push({
          id: `fresh ${item.id}`,
          severity: 'fix',
          itemId: item.id,
          words: `${name} comes when the legs are already tired.`,
          fixes: [{ words: 'Do it first', blocks: moved }],
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
          words: 'Two movements are combined before each was done alone.',
          fixes:
            parts.length >= 2
              ? [
                  {
                    words: 'Do each alone first',
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

const OVERHEAD = 2;
const SHOULDERS: readonly Muscle[] = ['front-shoulders', 'side-shoulders', 'rear-shoulders', 'shoulder-blades'];

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
      why: kind === 'warm-up' ? 'Prepares what the session uses.' : 'Eases what the session used.',
    })),
  };
  const has = plan.blocks.some((block) => block.kind === kind);
  const fresh: Block = { id: context.newId(), kind, rounds: 1, workSeconds: null, items: [item] };
  const blocks = has
    ? plan.blocks.map((block) => (block.kind === kind ? { ...block, items: [...block.items, item] } : block))
    : kind === 'warm-up'
      ? [fresh, ...plan.blocks]
      : [...plan.blocks, fresh];
  return { words: `Add ${movement.name}`, blocks };
}

const primeOf = (plan: Plain, kinds: (kind: Block['kind']) => boolean, context: PlanContext): Set<Muscle> =>
  new Set(
    [...lanesOf(plan)].flatMap(({ block, lane }) =>
      kinds(block.kind) ? (context.find(lane.movementId)?.muscles.prime ?? []) : [],
    ),
  );

function warmUpWarnings(plan: Plain, context: WarnContext): Warning[] {
  const overhead = [...lanesOf(plan)].find(
    ({ block, lane }) => !isAround(block) && (context.find(lane.movementId)?.demands.overhead ?? 0) >= OVERHEAD,
  );
  const prepared = primeOf(plan, (kind) => kind === 'warm-up', context);
  if (overhead && !SHOULDERS.some((muscle) => prepared.has(muscle))) {
    const movement = openTo(context, plan, ['mobility', 'drill'], SHOULDERS);
    return [
      {
        id: 'warm-up overhead',
        severity: 'fix',
        itemId: overhead.item.id,
        words: `${context.find(overhead.lane.movementId)?.name} goes overhead and nothing warms up the shoulders.`,
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
      words: 'There is no warm-up.',
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
          words: `${label(worked[0])}: ${Math.round(worked[1])} sets and no stretch for it.`,
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
  return [{ words: `Add ${rows.map(({ name }) => name).join(' and ')}`, blocks }];
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
        words: `${nameOf(context.clients, clientId)}: ${push} sets of pushing to ${pull} of pulling.`,
        fixes: morePulling(plan, context, clientId, Math.ceil(push / LOPSIDED) - pull),
      },
    ];
  });
}
