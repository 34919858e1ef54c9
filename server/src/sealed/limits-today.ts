/**
 * Limits lie sealed, so that no migration of the schema can read them: they are brought to today's form once, at the first start that has
 * both the form's column and the key.
 */
import { limitsToday } from '@waxwing/core/client';
import type { Limit } from '@waxwing/core/movement';
import type Database from 'better-sqlite3';

import { openedFrom, sealedFor } from './columns.js';
import type { Sealer } from './sealer.js';

/** The form that this version writes. */
const FORM = 2;

/** What cannot be opened or read stays as it lies: it is named as damaged, and not lost. */
export function bringLimitsUpToDate(db: Database.Database, sealer: Sealer): void {
  const { limitsForm } = db.prepare('SELECT limitsForm FROM meta').get() as { limitsForm: number };
  if (limitsForm >= FORM) return;
  db.transaction(() => {
    const change = db.prepare('UPDATE clients SET limits = ? WHERE id = ?');
    for (const { id, limits } of db.prepare('SELECT id, limits FROM clients').all() as Row[]) {
      const read = openedFrom(sealer, limits, 'clients', 'limits', { id });
      if (!Array.isArray(read) || read.length === 0) continue;
      change.run(sealedFor(sealer, JSON.stringify(limitsToday(read as Limit[])), 'clients', 'limits', { id }), id);
    }
    db.prepare('UPDATE meta SET limitsForm = ?').run(FORM);
  })();
}

interface Row {
  id: string;
  limits: string;
}
