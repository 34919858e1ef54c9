/** A message that waits in the outbox folder. */
export interface OutboxMessage {
  name: string;
  to: string;
  subject: string;
  writtenAt: string;
}
