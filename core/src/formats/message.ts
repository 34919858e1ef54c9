/** A message that waits in the outbox folder. */
import { z } from '../schema/zod.js';

export const outboxMessageSchema = z.strictObject({
  name: z.string(),
  to: z.string(),
  subject: z.string(),
  writtenAt: z.string(),
});
export type OutboxMessage = z.infer<typeof outboxMessageSchema>;
