/** A session as it is told: what a list shows of it, and its events piece by piece. */
import { instant, uuid } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { eventSchema } from './events.js';
import { programmeSchema } from './programme.js';

export const sessionSummarySchema = z.strictObject({
  id: uuid,
  startedAt: instant,
  finishedAt: instant.nullable(),
  clients: z.array(z.strictObject({ id: uuid, name: z.string() })),
});
export type SessionSummary = z.infer<typeof sessionSummarySchema>;

/** The same in a list, with what was done in it. */
export const listedSessionSchema = sessionSummarySchema.extend({
  /** Movements of which sets were done, in their order; of one that has just ended there may be none yet. */
  movements: z.array(z.string()),
});
export type ListedSession = z.infer<typeof listedSessionSchema>;

/** Events that came after a place, at most as many as one answer holds. */
export const laterEventsSchema = z.strictObject({
  events: z.array(eventSchema),
  /** Place of the last of them in the store: what comes later has a higher one. */
  place: z.int().min(0),
  /** The highest place that this session has: more is to be fetched while `place` is below it. */
  last: z.int().min(0),
  /** Another one each time the server starts: it may have come back from an older copy. */
  boot: z.string(),
});
export interface LaterEvents extends z.infer<typeof laterEventsSchema> {}

/** Events as a device sends them. */
export const sentEventsSchema = z.strictObject({ events: z.array(eventSchema) });
export interface SentEvents extends z.infer<typeof sentEventsSchema> {}

export const sessionViewSchema = sessionSummarySchema.extend({
  ...laterEventsSchema.shape,
  /** The plan that it began with; null for one from nothing. */
  programme: programmeSchema.nullable(),
});
export interface SessionView extends z.infer<typeof sessionViewSchema> {}
