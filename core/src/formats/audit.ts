/** The audit as a table, for whoever must look it over. */
import Papa from 'papaparse';

import type { AuditEntry } from '../door/door-schema.js';

/** What a spreadsheet would take for a formula is quoted. */
export const auditCsv = (entries: readonly AuditEntry[]): string =>
  `${Papa.unparse(
    entries.map(({ fields, ...entry }) => ({ ...entry, fields: fields.join(' + ') })),
    {
      columns: ['place', 'at', 'accountName', 'device', 'action', 'clientName', 'clientId', 'fields'],
      escapeFormulae: true,
    },
  )}\r\n`;
