/** Every set as a row: for a spreadsheet, or for whoever wants to reckon with them. */
import Papa from 'papaparse';

import { partsWords } from '../dosage/parts.js';
import { inWords, UNIT_WORDS } from '../movement/words.js';
import type { FindMovement } from '../session/digest.js';
import type { SessionState } from '../session/fold.js';
import type { SetRow } from './set-row.js';

/** The sets of a session, in the order of time. */
export function setRows(
  { lanes }: Pick<SessionState, 'lanes'>,
  sessionId: string,
  nameOf: (clientId: string) => string,
  find: FindMovement,
): SetRow[] {
  return Object.values(lanes)
    .flatMap(({ clientId, entries }) =>
      entries.flatMap(({ movementId, sets }) => {
        const movement = find(movementId);
        return sets.map((set, i): SetRow => ({
          at: set.at,
          sessionId,
          client: nameOf(clientId),
          movementId,
          movement: movement?.name ?? inWords(movementId),
          set: set.side === 'both' ? i + 1 : sets.slice(0, i + 1).filter(({ side }) => side === set.side).length,
          side: set.side,
          amount: set.amount,
          unit: UNIT_WORDS[set.uncounted ? 'time' : (movement?.dose.mode ?? 'reps')],
          counted: !set.uncounted,
          pieces: set.pieces ?? [],
          parts: set.parts ? partsWords(set.parts) : '',
          drops: set.drops
            .filter(({ amount }) => amount > 0)
            .map(({ amount, loadLabel }) => `${amount} x ${loadLabel ?? 'no weight'}`),
          kg: set.kg,
          load: set.loadLabel,
          effort: set.effort,
          repsLeft: set.left,
          faults: set.openFaults.map((id) => movement?.faults.find((fault) => fault.id === id)?.name ?? inWords(id)),
        }));
      }),
    )
    .sort((a, b) => a.at.localeCompare(b.at));
}

/** What a spreadsheet would take for a formula is quoted. */
export const setsCsv = (rows: readonly SetRow[]): string =>
  `${Papa.unparse(
    rows.map((row) => ({
      ...row,
      pieces: row.pieces.join(' + '),
      drops: row.drops.join(' + '),
      faults: row.faults.join(' + '),
    })),
    { columns: SET_COLUMNS, escapeFormulae: true },
  )}\r\n`;

const SET_COLUMNS = [
  'at',
  'sessionId',
  'client',
  'movementId',
  'movement',
  'set',
  'side',
  'amount',
  'unit',
  'counted',
  'pieces',
  'parts',
  'drops',
  'kg',
  'load',
  'effort',
  'repsLeft',
  'faults',
];
