/**
 * What can happen in a session, as append-only events with client-made ids.
 * Order is a logical clock (counter, then id), because device clocks may be wrong; `at` is only for durations and reading.
 */
import { BODY_SIDES, PAIN_QUALITIES } from '../client/pain.js';
import { placeRefSchema } from '../client/place.js';
import { testSchema } from '../client/tests.js';
import { OUTCOMES } from '../coaching/outcomes.js';
import { loadSchema } from '../dosage/load-schema.js';
import { amountOfParts } from '../dosage/parts.js';
import { canonical } from '../movement/difference.js';
import { cause } from '../movement/schema.js';
import { DEMANDS, EFFORTS, KIT_ITEMS, REGIONS, SET_UPS, VIEWS } from '../movement/vocabulary.js';
import { laneSchema } from '../planning/plan.js';
import { type Checked, instant, slug, tempoSchema, text, uuid, whole, words } from '../schema/atoms.js';
import { MOST_PARTS, partSchema } from '../schema/part.js';
import { type Problem, problemsOf } from '../schema/problem.js';
import { z } from '../schema/zod.js';

export const EVENT_TYPES = [
  'movement-started',
  'set-done',
  'effort-felt',
  'fault-seen',
  'cause-named',
  'correction-given',
  'outcome-noted',
  'pain-reported',
  'held-back',
  'note-written',
  'set-up-noted',
  'rep-counted',
  'stood',
  'set-corrected',
  'drop-done',
  'mark-noted',
  'timer-started',
  'timer-paused',
  'timer-resumed',
  'timer-extended',
  'timer-stopped',
  'item-added',
  'item-dropped',
  'sets-changed',
  'dose-changed',
  'step-skipped',
  'gone-to',
  'place-changed',
  'weight-brought',
  'session-paused',
  'session-resumed',
  'left-for-next',
  'undone',
  'session-finished',
] as const;
export type EventType = (typeof EVENT_TYPES)[number];
/** What a device may send. */
const SENT_TYPES: readonly EventType[] = EVENT_TYPES.filter((type) => type !== 'held-back');

/** What the mark for today turns what is left into. */
export const MARK_TAKES = ['fewer-sets', 'easier', 'stretch', 'nothing'] as const;
export type MarkTake = (typeof MARK_TAKES)[number];

/** A set was done on both sides together, or on one. */
export const SET_SIDES = ['both', 'left', 'right'] as const;
export type SetSide = (typeof SET_SIDES)[number];

const envelope = {
  id: uuid,
  sessionId: uuid,
  clientId: uuid,
  /** Logical clock: one more than any the device has seen. */
  counter: z.int().min(1, 'must be 1 or more').max(10_000_000, 'must be at most 10000000'),
  at: instant,
  /** What the device's clock said, where that could not be: `at` is then the time at which the event came in. */
  deviceAt: instant.optional(),
};

/** An event of one type: the envelope and what belongs to the type. `entryId` is the id of the `movement-started` it belongs to. */
const of = <T extends EventType, D extends z.ZodRawShape>(type: T, data: D) =>
  z.strictObject({ ...envelope, type: z.literal(type), data: z.strictObject(data) });

/** What a set was: reps, or seconds for timed movements, and with what. */
const setNumbers = {
  amount: whole(0, 3600),
  kg: z.number().min(0, 'must be 0 to 1000').max(1000, 'must be 0 to 1000').nullable(),
  loadLabel: words(80).nullable(),
};

export const eventSchema = z.discriminatedUnion('type', [
  /** `itemId`: the line of the session that it is done for; without one it stands on its own. */
  /** `aside`: taken for want of kit or room, for a change or for everybody: it says nothing about the rung that somebody is on. */
  of('movement-started', {
    movementId: slug,
    why: words(200).nullable(),
    itemId: uuid.optional(),
    /** The second movement of the same rep. */
    withId: slug.optional(),
    aside: z.literal(true).optional(),
  }),
  /** `despite`: why it should not have been done, where the trainer chose to do it all the same. */
  of('set-done', {
    entryId: uuid,
    side: z.enum(SET_SIDES),
    ...setNumbers,
    despite: text(400).optional(),
    /** Done by a clock and not counted: the amount is the seconds worked, whatever the movement is counted in. */
    uncounted: z.literal(true).optional(),
    /** A hold that was broken: the seconds of each piece. The amount is all of them. */
    pieces: z.array(whole(0, 3600)).min(2, 'needs at least two pieces').max(60, 'has at most 60 pieces').optional(),
    /** It was a test: what was measured is the amount, or the weight where that is the unit. */
    test: testSchema.optional(),
    /** A composed set: what was done of its parts. The amount is what they add up to. */
    parts: z.array(partSchema).min(1, 'needs a part').max(MOST_PARTS, `has at most ${MOST_PARTS} parts`).optional(),
  }),
  /** A set went on with a lighter weight, without a rest; with nothing, the set ended without it. */
  of('drop-done', { setId: uuid, ...setNumbers }),
  /** Tiredness begins to cost form: what was taken for it. `nothing`: it was asked, and is not asked again. */
  of('mark-noted', { entryId: uuid, took: z.enum(MARK_TAKES) }),
  /** `left`: reps that were left in the tank, where they were asked for by number. */
  of('effort-felt', { setId: uuid, effort: z.enum(EFFORTS), left: whole(0, 30).optional() }),
  /** `setId`: the set that it was seen in. Without one it belongs to the set that is logged next, or to the last one where none follows. */
  of('fault-seen', { entryId: uuid, faultId: slug, setId: uuid.optional() }),
  /** Why the faults of this stay come about, as the trainer sees it; `holds` is false where they take it back. */
  of('cause-named', { entryId: uuid, cause, holds: z.boolean() }),
  of('correction-given', { entryId: uuid, faultId: slug, correctionId: slug, addresses: z.array(slug).min(1).max(30) }),
  of('outcome-noted', { correctionEventId: uuid, outcome: z.enum(OUTCOMES) }),
  of('pain-reported', {
    entryId: uuid.nullable(),
    region: z.enum(REGIONS),
    quality: z.enum(PAIN_QUALITIES),
    side: z.enum(BODY_SIDES).optional(),
  }),
  /** What the server tells of a pain to whoever may not know where it is: what is left out for it, and not why. It is never sent. */
  of('held-back', {
    entryId: uuid.nullable(),
    quality: z.enum(PAIN_QUALITIES),
    limits: z.array(z.strictObject({ demand: z.enum(DEMANDS), allowed: whole(0, 3) })).max(DEMANDS.length),
  }),
  of('note-written', { text: text(2000) }),
  /** How a client is set up for a movement; nothing for what does not hold any more. */
  of('set-up-noted', { movementId: slug, measure: z.enum(SET_UPS), value: words(40) }),
  of('rep-counted', { entryId: uuid, side: z.enum(SET_SIDES) }),
  /** Where the trainer really stands for the set in hand; without it they are taken to stand where they were told to. */
  of('stood', { entryId: uuid, view: z.enum(VIEWS) }),
  /** What a set really was: the first numbers stay in the log. */
  of('set-corrected', { setId: uuid, ...setNumbers }),
  /** Work and rest in turns; a hold is one piece of work without a rest. Without an entry it is the clock of everybody at a block. */
  of('timer-started', {
    entryId: uuid.nullable(),
    blockId: uuid.nullable(),
    side: z.enum(SET_SIDES),
    work: whole(1, 3600),
    rest: whole(0, 900),
    count: whole(1, 200),
    /** Seconds of each piece of work where they differ. */
    works: z.array(whole(1, 3600)).max(200, 'has at most 200 pieces of work').optional(),
  }),
  of('timer-paused', { timerId: uuid }),
  /** `cut`: so many seconds of the piece before the pause were not held: it broke before somebody pressed. */
  of('timer-resumed', { timerId: uuid, cut: whole(1, 3600).optional() }),
  /** It goes on beyond what it was set to. */
  of('timer-extended', { timerId: uuid }),
  of('timer-stopped', { timerId: uuid }),
  /** A line put in: after another one, or at the end. */
  of('item-added', { itemId: uuid, afterId: uuid.nullable(), lane: laneSchema }),
  of('item-dropped', { itemId: uuid }),
  of('sets-changed', { itemId: uuid, sets: whole(0, 40) }),
  /** `set`: of that set alone. `parts`: a composed set; without them a line keeps its own as long as the amount is theirs. */
  of('dose-changed', {
    itemId: uuid,
    amount: whole(1, 3600),
    load: loadSchema.nullable(),
    tempo: tempoSchema,
    set: whole(1, 40).optional(),
    /** Seconds after each set, where they change as well. */
    rest: whole(0, 900).optional(),
    parts: z.array(partSchema).min(1, 'needs a part').max(MOST_PARTS, `has at most ${MOST_PARTS} parts`).optional(),
  }),
  of('step-skipped', { itemId: uuid, set: whole(1, 40) }),
  of('gone-to', { itemId: uuid, set: whole(1, 40) }),
  /** Where it is held, from now on. */
  of('place-changed', { place: placeRefSchema }),
  /** A weight that is here today: for everybody in the session. With a step it can be filled up to the most. */
  of('weight-brought', {
    item: z.enum(KIT_ITEMS),
    count: whole(1, 10),
    kg: z.number().min(0.1, 'must be 0.1 to 500').max(500, 'must be 0.1 to 500'),
    /** The unit it was typed in; kilograms where it is null. */
    unit: z.enum(['lb']).nullable(),
    stepKg: z.number().min(0.1, 'must be 0.1 to 100').max(100, 'must be 0.1 to 100').nullable(),
    mostKg: z.number().min(0.1, 'must be 0.1 to 500').max(500, 'must be 0.1 to 500').nullable(),
  }),
  of('session-paused', {}),
  of('session-resumed', {}),
  /** What was planned and not done, to come back to the next time. */
  of('left-for-next', { movementIds: z.array(slug).min(1).max(60) }),
  of('undone', { eventId: uuid }),
  of('session-finished', {}),
]);

export type SessionEvent = z.infer<typeof eventSchema>;
export type EventOf<T extends EventType> = Extract<SessionEvent, { type: T }>;

/** What an event is checked against besides its own shape. */
export interface SessionFrame {
  sessionId: string;
  clientIds: readonly string[];
}

/** How far a device clock may be off before its time is not believed, in days. */
export const CLOCK_TOLERANCE_DAYS = 1;
const TOLERANCE_MS = CLOCK_TOLERANCE_DAYS * 86_400_000;

/** True when a device time lies between a day before the session's start and a day from now. */
export const believable = (at: string, startedAt: string, now: string): boolean =>
  Date.parse(at) >= Date.parse(startedAt) - TOLERANCE_MS && Date.parse(at) <= Date.parse(now) + TOLERANCE_MS;

/** Checks one incoming event of unknown shape for a session. */
export function checkEvent(input: unknown, frame: SessionFrame): Checked<SessionEvent> {
  const type: unknown = typeof input === 'object' && input !== null && 'type' in input ? input.type : undefined;
  if (!SENT_TYPES.includes(type as EventType))
    return { ok: false, problems: [{ path: 'type', message: `must be one of ${SENT_TYPES.join(', ')}` }] };
  const result = eventSchema.safeParse(input, { reportInput: true });
  if (!result.success) return { ok: false, problems: problemsOf(result.error) };
  const event = result.data;
  const problems: Problem[] = [];
  if (event.sessionId !== frame.sessionId) problems.push({ path: 'sessionId', message: 'belongs to another session' });
  if (event.type === 'set-done' && event.data.pieces) {
    const all = event.data.pieces.reduce((sum, piece) => sum + piece, 0);
    if (all !== event.data.amount)
      problems.push({ path: 'data.pieces', message: `add up to ${all}, but the amount is ${event.data.amount}` });
  }
  if (event.type === 'set-done' && event.data.test?.unit === 'kg' && event.data.kg === null)
    problems.push({ path: 'data.kg', message: 'is what this test measures' });
  if ((event.type === 'set-done' || event.type === 'dose-changed') && event.data.parts) {
    const all = amountOfParts(event.data.parts);
    if (all !== event.data.amount)
      problems.push({ path: 'data.parts', message: `add up to ${all}, but the amount is ${event.data.amount}` });
  }
  if (!frame.clientIds.includes(event.clientId)) problems.push({ path: 'clientId', message: 'is not in this session' });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: event };
}

/**
 * An event as it is stored. A time that cannot be, from a clock that jumped, is replaced by the time at which the event came in, and kept beside it:
 * what was tapped is true, whatever the clock said.
 * @param now milliseconds since 1970; events of one tap share a time, so callers give each tap of a batch a later one
 */
export function stamped(event: SessionEvent, startedAt: string, now: number): SessionEvent {
  const { deviceAt: _, ...plain } = event;
  return believable(event.at, startedAt, new Date(now).toISOString())
    ? plain
    : { ...plain, at: new Date(now).toISOString(), deviceAt: event.at };
}

/** Whether an event that comes in is the one that is stored, whatever time it was given. */
export function isSameEvent(incoming: SessionEvent, stored: SessionEvent): boolean {
  const { deviceAt, ...plain } = stored;
  const { deviceAt: _, ...given } = incoming;
  return canonical(given) === canonical(deviceAt === undefined ? plain : { ...plain, at: deviceAt });
}

/** The events that another event of the same session is about: without them it says nothing. */
export function refersTo({ type, data }: SessionEvent): { path: string; id: string }[] {
  const keys: readonly string[] = REFERENCES[type] ?? [];
  const fields = data as Readonly<Record<string, unknown>>;
  return keys.flatMap((key) => (typeof fields[key] === 'string' ? [{ path: `data.${key}`, id: fields[key] }] : []));
}

const REFERENCES: Readonly<Partial<Record<EventType, readonly string[]>>> = {
  'set-done': ['entryId'],
  'effort-felt': ['setId'],
  'fault-seen': ['entryId', 'setId'],
  'cause-named': ['entryId'],
  'correction-given': ['entryId'],
  'outcome-noted': ['correctionEventId'],
  'pain-reported': ['entryId'],
  'held-back': ['entryId'],
  'rep-counted': ['entryId'],
  stood: ['entryId'],
  'set-corrected': ['setId'],
  'drop-done': ['setId'],
  'mark-noted': ['entryId'],
  'timer-started': ['entryId'],
  'timer-paused': ['timerId'],
  'timer-resumed': ['timerId'],
  'timer-extended': ['timerId'],
  'timer-stopped': ['timerId'],
  undone: ['eventId'],
};
