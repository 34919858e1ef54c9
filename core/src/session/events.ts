/**
 * What can happen in a session, as append-only events with client-made ids.
 * Order is a logical clock (counter, then id), because device clocks may be wrong; `at` is only for durations and reading.
 */
import { z } from '../movement/zod.js';
import { OUTCOMES } from '../coaching/evidence.js';
import { PAIN_QUALITIES } from '../coaching/pain.js';
import type { Checked } from '../movement/check.js';
import { problemsOf, type Problem } from '../movement/problem.js';
import { slug } from '../movement/schema.js';
import { EFFORTS, REGIONS } from '../movement/vocabulary.js';
import { laneSchema, loadSchema, tempoSchema } from '../planning/plan.js';

export const EVENT_TYPES = [
  'movement-started',
  'set-done',
  'effort-felt',
  'fault-seen',
  'correction-given',
  'outcome-noted',
  'pain-reported',
  'note-written',
  'rep-counted',
  'set-corrected',
  'timer-started',
  'timer-paused',
  'timer-resumed',
  'timer-stopped',
  'item-added',
  'item-dropped',
  'sets-changed',
  'dose-changed',
  'step-skipped',
  'gone-to',
  'session-paused',
  'session-resumed',
  'undone',
  'session-finished',
] as const;
export type EventType = (typeof EVENT_TYPES)[number];

/** A set was done on both sides together, or on one. */
export const SET_SIDES = ['both', 'left', 'right'] as const;
export type SetSide = (typeof SET_SIDES)[number];

const envelope = {
  id: z.uuid('must be a UUID'),
  sessionId: z.uuid('must be a UUID'),
  clientId: z.uuid('must be a UUID'),
  /** Logical clock: one more than any the device has seen. */
  counter: z.int().min(1, 'must be 1 or more').max(10_000_000, 'must be at most 10000000'),
  at: z.iso.datetime('must be a UTC time such as 2030-01-31T17:05:00.000Z'),
};
const uuid = z.uuid('must be a UUID');

/** An event of one type: the envelope and what belongs to the type. `entryId` is the id of the `movement-started` it belongs to. */
const of = <T extends EventType, D extends z.ZodRawShape>(type: T, data: D) =>
  z.strictObject({ ...envelope, type: z.literal(type), data: z.strictObject(data) });

const count = (low: number, high: number) =>
  z
    .int(`must be a whole number from ${low} to ${high}`)
    .min(low, `must be ${low} to ${high}`)
    .max(high, `must be ${low} to ${high}`);

/** What a set was: reps, or seconds for timed movements, and with what. */
const setNumbers = {
  amount: count(0, 3600),
  kg: z.number().min(0, 'must be 0 to 1000').max(1000, 'must be 0 to 1000').nullable(),
  loadLabel: z.string().max(80).nullable(),
};

export const eventSchema = z.discriminatedUnion('type', [
  /** `itemId`: the line of the session that it is done for; without one it stands on its own. */
  of('movement-started', { movementId: slug, why: z.string().max(200).nullable(), itemId: uuid.optional() }),
  of('set-done', { entryId: uuid, side: z.enum(SET_SIDES), ...setNumbers }),
  /** `left`: reps that were left in the tank, where they were asked for by number. */
  of('effort-felt', { setId: uuid, effort: z.enum(EFFORTS), left: count(0, 30).optional() }),
  of('fault-seen', { entryId: uuid, faultId: slug }),
  of('correction-given', { entryId: uuid, faultId: slug, correctionId: slug, addresses: z.array(slug).min(1).max(30) }),
  of('outcome-noted', { correctionEventId: uuid, outcome: z.enum(OUTCOMES) }),
  of('pain-reported', { entryId: uuid.nullable(), region: z.enum(REGIONS), quality: z.enum(PAIN_QUALITIES) }),
  of('note-written', { text: z.string().min(1, 'must not be empty').max(2000, 'must be at most 2000 characters') }),
  of('rep-counted', { entryId: uuid, side: z.enum(SET_SIDES) }),
  /** What a set really was: the first numbers stay in the log. */
  of('set-corrected', { setId: uuid, ...setNumbers }),
  /** Work and rest in turns; a hold is one piece of work without a rest. Without an entry it is the clock of everybody at a block. */
  of('timer-started', {
    entryId: uuid.nullable(),
    blockId: uuid.nullable(),
    side: z.enum(SET_SIDES),
    work: count(1, 3600),
    rest: count(0, 900),
    count: count(1, 200),
  }),
  of('timer-paused', { timerId: uuid }),
  of('timer-resumed', { timerId: uuid }),
  of('timer-stopped', { timerId: uuid }),
  /** A line put in: after another one, or at the end. */
  of('item-added', { itemId: uuid, afterId: uuid.nullable(), lane: laneSchema }),
  of('item-dropped', { itemId: uuid }),
  of('sets-changed', { itemId: uuid, sets: count(0, 40) }),
  of('dose-changed', { itemId: uuid, amount: count(1, 3600), load: loadSchema.nullable(), tempo: tempoSchema }),
  of('step-skipped', { itemId: uuid, set: count(1, 40) }),
  of('gone-to', { itemId: uuid, set: count(1, 40) }),
  of('session-paused', {}),
  of('session-resumed', {}),
  of('undone', { eventId: uuid }),
  of('session-finished', {}),
]);

export type SessionEvent = z.infer<typeof eventSchema>;
export type EventOf<T extends EventType> = Extract<SessionEvent, { type: T }>;

/** What an event is checked against besides its own shape. */
export interface SessionFrame {
  sessionId: string;
  clientIds: readonly string[];
  startedAt: string;
  now: string;
}

/** How far a device clock may be off before its events are refused, in days. */
export const CLOCK_TOLERANCE_DAYS = 1;
const TOLERANCE_MS = CLOCK_TOLERANCE_DAYS * 86_400_000;

/** True when a device time lies between a day before the session's start and a day from now. */
export const believable = (at: string, startedAt: string, now: string): boolean =>
  Date.parse(at) >= Date.parse(startedAt) - TOLERANCE_MS && Date.parse(at) <= Date.parse(now) + TOLERANCE_MS;

/** Checks one incoming event of unknown shape for a session. */
export function checkEvent(input: unknown, frame: SessionFrame): Checked<SessionEvent> {
  const type: unknown = typeof input === 'object' && input !== null && 'type' in input ? input.type : undefined;
  if (!EVENT_TYPES.includes(type as EventType))
    return { ok: false, problems: [{ path: 'type', message: `must be one of ${EVENT_TYPES.join(', ')}` }] };
  const result = eventSchema.safeParse(input, { reportInput: true });
  if (!result.success) return { ok: false, problems: problemsOf(result.error) };
  const event = result.data;
  const problems: Problem[] = [];
  if (event.sessionId !== frame.sessionId) problems.push({ path: 'sessionId', message: 'belongs to another session' });
  if (!frame.clientIds.includes(event.clientId)) problems.push({ path: 'clientId', message: 'is not in this session' });
  if (!believable(event.at, frame.startedAt, frame.now))
    problems.push({ path: 'at', message: `${event.at} is too far from now: check the clock of this device` });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: event };
}
