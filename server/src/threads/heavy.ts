/** In a thread of its own: sheets as PDF, and the health of the library. It reads the library itself, since sending it would take as long. */
import { parentPort, workerData } from 'node:worker_threads';

import { askedOf } from '@waxwing/core/body';
import type { Sheet } from '@waxwing/core/formats';
import { type Health, libraryHealth } from '@waxwing/core/ladder';
import { buildKindFinder, figureIdOf, type Movement } from '@waxwing/core/movement';
import { loadCheckedFigures, loadFaultKinds, loadProven } from '@waxwing/library';
import Database from 'better-sqlite3';

import { parsed } from '../database/json-column.js';
import { type Paper, sheetPdf } from '../plans/sheet-pdf.js';

/** Where the thread reads. */
export interface HeavyData {
  database: string;
  faultKinds: string;
  figures: string;
  figuresChecked: string;
  figuresProven: string;
}

export type HeavyQuestion =
  | { do: 'health' }
  /** `stills`: by movement, its pictures as SVG. */
  | { do: 'sheet'; sheet: Sheet; date: string | null; paper: Paper; stills: Readonly<Record<string, string[]>> };

export type HeavyAnswer = { health: Health } | { pdf: Uint8Array } | { problem: string };

const data = workerData as HeavyData;

function health(): Health {
  const db = new Database(data.database, { readonly: true });
  try {
    const rows = db.prepare('SELECT document FROM movements WHERE archivedAt IS NULL').pluck().all() as string[];
    const movements = rows.flatMap((document) => (parsed(document) as Movement | undefined) ?? []);
    const { figures } = loadCheckedFigures(data.figures, data.figuresChecked);
    const proven = loadProven(data.figures, data.figuresProven);
    return libraryHealth(movements, buildKindFinder(loadFaultKinds(data.faultKinds)).of, (movement) => {
      const id = figureIdOf(movement);
      const figure = figures[id];
      return figure ? askedOf(proven[id] ?? {}, figure) : {};
    });
  } finally {
    db.close();
  }
}

async function answer(asked: HeavyQuestion): Promise<HeavyAnswer> {
  try {
    if (asked.do === 'health') return { health: health() };
    const { sheet, date, paper, stills } = asked;
    return { pdf: await sheetPdf(sheet, date, paper, (movementId) => stills[movementId] ?? []) };
  } catch (error) {
    return { problem: error instanceof Error ? error.message : String(error) };
  }
}

parentPort?.on('message', ({ task, ...asked }: HeavyQuestion & { task: number }) => {
  void answer(asked).then((told) => parentPort?.postMessage({ task, ...told }));
});
