/**
 * A session plan: blocks of items, each item one line in which every client has a movement, a dose and a load of their own.
 * The schema that requests, stored plans and the page are checked against.
 */
import { AT_STUDIO, placeRefSchema } from '../client/place.js';
import { testSchema } from '../client/tests.js';
import { loadSchema } from '../dosage/load-schema.js';
import { amountOfParts, wrongParts } from '../dosage/parts.js';
import type { KitPiece } from '../movement/kit-schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import { PURPOSES, SPACES } from '../movement/vocabulary.js';
import { type Checked, checkedBy, instant, slug, tempoSchema, text, uuid, whole, words } from '../schema/atoms.js';
import { MOST_PARTS, partSchema } from '../schema/part.js';
import { z } from '../schema/zod.js';
import { blockClockSchema, LONGEST_WORK, MOST_ROUNDS, SHORTEST_WORK } from './block-clock.js';
import { laneOfSet, type SetLane } from './by-set.js';
import { whySchema } from './reason.js';
import { dropSchema, MOST_DROPS, setChangeSchema } from './set-change.js';

/** In the order in which a session usually has them. */
export const BLOCK_KINDS = [
  'warm-up',
  'skill',
  'strength',
  'superset',
  'circuit',
  'trunk',
  'finisher',
  'stretch',
] as const;
export type BlockKind = (typeof BLOCK_KINDS)[number];

/** Most people in one plan. */
export const MOST_CLIENTS = 4;
/** A day, in minutes: no plan is longer. */
export const DAY_MINUTES = 24 * 60;

export const laneSchema = z
  .strictObject({
    clientId: uuid,
    movementId: slug,
    /** A second movement done in the same rep: A, then B, then A with B. */
    withId: slug.nullable(),
    sets: whole(1, 20),
    /** Reps, seconds or metres; of one side where each has its own. Of a composed set what its parts add up to. */
    amount: whole(1, 3600),
    tempo: tempoSchema,
    /** Seconds after each set. */
    rest: whole(0, 900),
    load: loadSchema.nullable(),
    /** Why this movement and this dose. */
    why: whySchema,
    /** A composed set: one part after the other. */
    parts: z.array(partSchema).min(1, 'needs a part').max(MOST_PARTS, `has at most ${MOST_PARTS} parts`).optional(),
    /** It is a test: what comes out is compared over the weeks. */
    test: testSchema.optional(),
    /** Sets or rounds that differ from the line. */
    bySet: z.array(setChangeSchema).max(20, 'has at most 20 rounds').optional(),
    /** Lighter weights to go on with in the same set, the heaviest first. */
    drops: z.array(dropSchema).min(1, 'needs a weight').max(MOST_DROPS, `has at most ${MOST_DROPS} drops`).optional(),
  })
  .superRefine((lane, context) => {
    const report = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message });
    const { parts, bySet = [], drops = [], load } = lane;
    const wrong = parts && wrongParts(parts, lane.tempo);
    if (wrong) report(['parts'], wrong);
    else if (parts && amountOfParts(parts) !== lane.amount)
      report(['parts'], `add up to ${amountOfParts(parts)}, but the amount is ${lane.amount}`);
    bySet.forEach(({ set }, i) => {
      if (bySet.findIndex((one) => one.set === set) < i) report(['bySet', i, 'set'], 'is there twice');
    });
    let kg = load?.kg ?? null;
    drops.forEach((drop, i) => {
      const less = kg !== null && drop.load.kg !== null && drop.load.kg < kg;
      if (!less) report(['drops', i, 'load'], 'must be lighter than the weight before it');
      kg = drop.load.kg;
    });
  });

const itemSchema = z.strictObject({
  id: uuid,
  /** Kept by suggestions and in its place by the best order. */
  locked: z.boolean(),
  /** The next item of the block follows straight after, whatever the order. */
  tied: z.boolean(),
  /** The movement that a group has at three levels: the one at level 2. */
  baseId: slug.optional(),
  lanes: z.array(laneSchema).min(1, 'needs at least one person').max(MOST_CLIENTS, 'takes at most four people'),
});

export const blockSchema = z.strictObject({
  id: uuid,
  kind: z.enum(BLOCK_KINDS),
  /** How often the items are gone round in a superset or circuit. */
  rounds: whole(1, MOST_ROUNDS),
  /** A circuit by time: seconds at each item instead of its own dose. */
  workSeconds: whole(SHORTEST_WORK, LONGEST_WORK).nullable(),
  /** Seconds from the second round on where rounds differ; the last of them goes on. */
  workThen: z
    .array(whole(SHORTEST_WORK, LONGEST_WORK))
    .min(1, 'needs seconds for at least one round')
    .max(MOST_ROUNDS - 1, `has at most ${MOST_ROUNDS} rounds`)
    .optional(),
  /** Another clock of a circuit, in which the doses are its own. */
  clock: blockClockSchema.optional(),
  items: z.array(itemSchema).max(40, 'has at most 40 items'),
});

export const planSchema = z
  .strictObject({
    name: text(80),
    clientIds: z.array(uuid).min(1, 'needs at least one client').max(MOST_CLIENTS, 'takes at most four clients'),
    /** The slot, in minutes. */
    minutes: whole(5, DAY_MINUTES),
    startsAt: instant.nullable(),
    purpose: z.enum(PURPOSES),
    /** Where it is held: the kit of that place decides. */
    place: placeRefSchema.default(AT_STUDIO),
    /** The room there is to work in. */
    space: z.enum(SPACES),
    /** A plan to start others from. */
    template: z.boolean(),
    note: words(2000),
    blocks: z.array(blockSchema).max(20, 'has at most 20 blocks'),
  })
  .superRefine((plan, context) => {
    const report = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message });
    plan.clientIds.forEach((id, i) => {
      if (plan.clientIds.indexOf(id) < i) report(['clientIds', i], 'is in the plan twice');
    });
    if (plan.place.kind === 'home' && !plan.clientIds.includes(plan.place.id))
      report(['place', 'id'], 'is the home of somebody who is not in this plan');
    const ids = new Set<string>();
    plan.blocks.forEach((block, b) => {
      if (block.clock && (block.kind !== 'circuit' || block.workSeconds !== null))
        report(['blocks', b, 'clock'], 'is for a circuit without seconds of work');
      if (block.workThen && (block.kind !== 'circuit' || block.workSeconds === null))
        report(['blocks', b, 'workThen'], 'is for a circuit with seconds of work');
      block.items.forEach((item, i) => {
        const path = ['blocks', b, 'items', i];
        if (ids.has(item.id)) report([...path, 'id'], 'is used twice');
        ids.add(item.id);
        item.lanes.forEach((lane, l) =>
          lane.bySet?.forEach(({ set }, n) => {
            if (set > setsOfLane(block, lane))
              report([...path, 'lanes', l, 'bySet', n, 'set'], `is past the last of ${setsOfLane(block, lane)}`);
          }),
        );
        const seen = new Set<string>();
        item.lanes.forEach(({ clientId }, l) => {
          if (seen.has(clientId)) report([...path, 'lanes', l, 'clientId'], 'is in two lanes of one line');
          seen.add(clientId);
          if (!plan.clientIds.includes(clientId)) report([...path, 'lanes', l, 'clientId'], 'is not in this plan');
        });
      });
    });
  });

export interface Plan extends z.infer<typeof planSchema> {}
/** As somebody writes it: what is usual may be left out. */
export interface PlanInput extends z.input<typeof planSchema> {}
export type Block = z.infer<typeof blockSchema>;
export type PlanItem = z.infer<typeof itemSchema>;
export type PlanLane = z.infer<typeof laneSchema>;

export const checkPlan = (input: unknown): Checked<Plan> => checkedBy(planSchema, input);

/** What planning has to know besides the plan. */
export interface PlanContext {
  /** A movement of the library; undefined for one that is gone. */
  find: (movementId: string) => MovementSummary | undefined;
  /** Whether a client has done a movement before: what is new needs teaching. */
  knows: (clientId: string, movementId: string) => boolean;
  /** What is there; without it nobody is taken to go round for want of kit. */
  kit?: readonly KitPiece[];
}

/** Blocks that prepare or ease off: what is in them is not counted as training. */
export const isAround = ({ kind }: Pick<Block, 'kind'>): boolean => kind === 'warm-up' || kind === 'stretch';

/** A plan without anything in it yet. */
export const emptyPlan = (clientIds: readonly string[], minutes: number): Plan => ({
  name: 'Plan',
  clientIds: [...clientIds],
  minutes,
  startsAt: null,
  purpose: 'strength',
  place: AT_STUDIO,
  space: 'lane',
  template: false,
  note: '',
  blocks: [],
});

/** The blocks with one item changed. */
export const mapItem = (blocks: readonly Block[], itemId: string, change: (item: PlanItem) => PlanItem): Block[] =>
  blocks.map((block) => ({
    ...block,
    items: block.items.map((item) => (item.id === itemId ? change(item) : item)),
  }));

/** The blocks with one person's lane of one item changed. */
export const mapLane = (
  blocks: readonly Block[],
  itemId: string,
  clientId: string,
  change: (lane: PlanLane) => PlanLane,
): Block[] =>
  mapItem(blocks, itemId, (item) => ({
    ...item,
    lanes: item.lanes.map((lane) => (lane.clientId === clientId ? change(lane) : lane)),
  }));

/** In these the items take turns, round after round; in the others the sets of one item follow one another. */
export const inRounds = ({ kind }: Pick<Block, 'kind'>): boolean => kind === 'superset' || kind === 'circuit';

/** One set, in the order in which a session goes. */
export interface Turn {
  block: Block;
  item: PlanItem;
  /** From 1. */
  set: number;
  lanes: SetLane[];
}

/** How many sets a lane does in its block. */
export const setsOfLane = (block: Block, lane: PlanLane): number => (inRounds(block) ? block.rounds : lane.sets);

/** The sets of a block in the order in which they are done. */
export function turnsOf(block: Block): Turn[] {
  const most = Math.max(0, ...block.items.flatMap(({ lanes }) => lanes.map((lane) => setsOfLane(block, lane))));
  const turn = (item: PlanItem, set: number): Turn => ({
    block,
    item,
    set,
    lanes: item.lanes.filter((lane) => set <= setsOfLane(block, lane)).map((lane) => laneOfSet(lane, set)),
  });
  const sets = Array.from({ length: most }, (_, i) => i + 1);
  return (
    inRounds(block)
      ? sets.flatMap((set) => block.items.map((item) => turn(item, set)))
      : block.items.flatMap((item) => sets.map((set) => turn(item, set)))
  ).filter(({ lanes }) => lanes.length > 0);
}
