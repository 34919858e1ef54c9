/** At the start: what holds is applied to a database that was brought back, before anybody is served from it. */
import { Injectable } from '@nestjs/common';

import { eraseClient } from '../clients/erase.js';
import { type Holds, holdsIn } from '../database/holds.js';
import { StudioFolder } from '../database/studio-folder.js';
import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { audited } from '../door/audit.service.js';

@Injectable()
export class HoldsService {
  constructor(
    private readonly folder: StudioFolder,
    private readonly gate: WriteGate,
  ) {}

  /** Before any other part of the server looks at the database. */
  apply(): void {
    let deleted = 0;
    this.gate.write((writer) => {
      writer.outlasts = true;
      const { studio } = writer.get<{ studio: string }>('SELECT studio FROM meta') ?? { studio: '' };
      const holds = holdsIn(this.folder.path, studio);
      if (!holds) return;
      deleted = eraseAgain(writer, holds);
      const { shutOut, changed } = bringUpToDate(writer, holds);
      // A door that was closed since then is closed; who opens it again does so knowingly.
      if (holds.restored && holds.door === 'closed') writer.run(`UPDATE door SET state = 'closed'`);
      if (holds.restored === null && deleted + shutOut + changed === 0) return;
      const fields = [
        ...(holds.restored ? [holds.restored.file] : []),
        ...(deleted > 0 ? [`deleted again: ${deleted}`] : []),
        ...(shutOut > 0 ? [`shut out again: ${shutOut}`] : []),
        ...(changed > 0 ? [`accounts as they were last: ${changed}`] : []),
      ];
      audited(writer, { visitor: null, device: 'this machine', action: 'restored', fields }, holds.restored?.at);
    });
    if (deleted > 0) this.gate.scrub();
  }
}

/** @returns how many were there again */
function eraseAgain(writer: Writer, { erased }: Holds): number {
  let deleted = 0;
  for (const { id, at } of erased) {
    const here = writer.get('SELECT 1 FROM clients WHERE id = ?', id);
    if (here) {
      eraseClient(writer, id);
      deleted += 1;
    }
    writer.run('INSERT OR REPLACE INTO erased (id, at) VALUES (?, ?)', id, at);
  }
  return deleted;
}

/** Accounts as they were last. Whoever came after the backup was made has none in it. */
function bringUpToDate(writer: Writer, { accounts }: Holds): { shutOut: number; changed: number } {
  let [shutOut, changed] = [0, 0];
  for (const { id, changes, role, passphrase, recovery, recoveryEndsAt, shutOutAt } of accounts) {
    const here = writer.get<{ changes: number; shutOutAt: string | null }>(
      'SELECT changes, shutOutAt FROM accounts WHERE id = ?',
      id,
    );
    if (!here || here.changes >= changes) continue;
    if (shutOutAt !== null && here.shutOutAt === null) shutOut += 1;
    else changed += 1;
    writer.run(
      'UPDATE accounts SET role = ?, passphrase = ?, recovery = ?, recoveryEndsAt = ?, shutOutAt = ? WHERE id = ?',
      ...[role, passphrase, recovery, recoveryEndsAt, shutOutAt, id],
    );
    writer.run('UPDATE accounts SET changes = ? WHERE id = ?', changes, id);
  }
  return { shutOut, changed };
}
