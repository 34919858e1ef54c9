/** The sheet that a client takes home, as it is told. */
import { z } from '../schema/zod.js';

const line = z.strictObject({
  movementId: z.string(),
  name: z.string(),
  dose: z.string(),
  sets: z.int().min(0),
  /** The weight to take, with what to change; null without one. */
  kit: z.string().nullable(),
  /** How this client is set up for it; null where nothing was noted. */
  setUp: z.string().nullable(),
  /** How it is done from start to end, for somebody who is alone with it; null in the studio. */
  how: z.string().nullable(),
  reminders: z.array(z.string()),
  watchOut: z.string().nullable(),
  easier: z.string().nullable(),
  harder: z.string().nullable(),
  /** Against the last time it was done; null for the same again. */
  changed: z.string().nullable(),
  /** Why it must not be done now, where something closed it since it was planned; the rest of the line is empty then. */
  leaveOut: z.string().nullable(),
});
export type SheetLine = z.infer<typeof line>;

export const sheetSchema = z.strictObject({
  title: z.string(),
  client: z.string(),
  studio: z.string(),
  /** The place where it is done, by its name. */
  where: z.string(),
  trainer: z.string(),
  /** ISO, or null when no date is set. */
  startsAt: z.string().nullable(),
  minutes: z.number(),
  blocks: z.array(z.strictObject({ title: z.string(), note: z.string(), lines: z.array(line) })),
  cautions: z.array(z.string()),
});
export type Sheet = z.infer<typeof sheetSchema>;
