/**
 * What can happen in a session, as append-only events with client-made ids.
 * Order is a logical clock (counter, then id), because device clocks may be wrong; `at` is only for durations and reading.
 */
import { z } from 'zod';
import { OUTCOMES } from '../coaching/evidence.js';
import { PAIN_QUALITIES } from '../coaching/pain.js';
import type { Checked } from '../movement/check.js';
import { problemsOf, type Problem } from '../movement/problem.js';
import { slug } from '../movement/schema.js';
import { EFFORTS, REGIONS } from '../movement/vocabulary.js';

export const EVENT_TYPES = [
  'movement-started',
  'set-done',
  'effort-felt',
  'fault-seen',
  'correction-given',
  'outcome-noted',
  'pain-reported',
  'note-written',
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

export const eventSchema = z.discriminatedUnion('type', [
  of('movement-started', { movementId: slug, why: z.string().max(200).nullable() }),
  of('set-done', {
    entryId: uuid,
    side: z.enum(SET_SIDES),
    /** Reps, or seconds for timed movements. */
    amount: z.int().min(0, 'must be 0 to 3600').max(3600, 'must be 0 to 3600'),
    kg: z.number().min(0, 'must be 0 to 1000').max(1000, 'must be 0 to 1000').nullable(),
    loadLabel: z.string().max(40).nullable(),
  }),
  of('effort-felt', { setId: uuid, effort: z.enum(EFFORTS) }),
  of('fault-seen', { entryId: uuid, faultId: slug }),
  of('correction-given', { entryId: uuid, faultId: slug, correctionId: slug, addresses: z.array(slug).min(1).max(30) }),
  of('outcome-noted', { correctionEventId: uuid, outcome: z.enum(OUTCOMES) }),
  of('pain-reported', { entryId: uuid.nullable(), region: z.enum(REGIONS), quality: z.enum(PAIN_QUALITIES) }),
  of('note-written', { text: z.string().min(1, 'must not be empty').max(2000, 'must be at most 2000 characters') }),
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
