/** Lets old sessions go with everything in them and all that they taught. */
import type { Writer } from '../database/writer.js';
import { audited } from '../door/audit.service.js';
import { forgetDigests } from './kept-digests.js';

/** @param before ISO; @returns how many went */
export function eraseSessionsBefore(writer: Writer, before: string): number {
  const sessions = writer.all<{ id: string }>('SELECT id FROM sessions WHERE startedAt < ?', before);
  const at = new Date().toISOString();
  for (const { id } of sessions) {
    forgetDigests(writer, id);
    writer.run('DELETE FROM events WHERE sessionId = ?', id);
    writer.run('DELETE FROM left_taps WHERE sessionId = ?', id);
    writer.run('DELETE FROM session_clients WHERE sessionId = ?', id);
    writer.run('DELETE FROM sessions WHERE id = ?', id);
    // A device that comes by late forgets it too, and does not bring it back.
    writer.run('INSERT OR REPLACE INTO erased (id, at) VALUES (?, ?)', id, at);
  }
  if (sessions.length === 0) return 0;
  writer.outlasts = true;
  audited(writer, { visitor: null, device: '', action: 'sessions-let-go', fields: [String(sessions.length)] });
  return sessions.length;
}
