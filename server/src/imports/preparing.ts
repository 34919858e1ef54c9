/**
 * Reading, checking and comparing what comes from outside, packs and client files: seconds of work for a large one, done in a thread of its own so that nobody waits for it.
 * The thread reads the library itself; what it found waits in it until it is chosen from or forgotten.
 */
import { parentPort, workerData } from 'node:worker_threads';

import {
  checkClientFile,
  type ClientFile,
  type ImportRow,
  mergeImport,
  type Pack,
  PackError,
  previewImport,
  readCsv,
  readPack,
} from '@waxwing/core/formats';
import type { Movement } from '@waxwing/core/movement';
import { type Problem, wrongInJson } from '@waxwing/core/schema';
import Database from 'better-sqlite3';

import { parsed } from '../database/json-column.js';

export type ImportKind = 'pack' | 'csv';

export type Asked =
  | { task: number; do: 'preview'; importId: string; kind: ImportKind; bytes: Uint8Array }
  | { task: number; do: 'prepare'; importId: string; take: readonly string[] }
  | { task: number; do: 'client'; bytes: Uint8Array };

/** What was looked at: what it would do, and the versions that the look was made at. */
export interface Looked {
  rows: ImportRow[];
  versions: [id: string, version: number][];
}

/** Chosen movements as JSON, and the versions that they replace. */
export interface Prepared {
  texts: [id: string, text: string][];
  versions: [id: string, version: number][];
}

export type Answered = { task: number } & (
  | { looked: Looked }
  | { prepared: Prepared }
  /** The import is not remembered any more. */
  | { forgotten: true }
  | { client: ClientFile }
  | { problems: readonly Problem[] }
);

interface Waiting {
  pack: Pack;
  versions: ReadonlyMap<string, number>;
}

/** Looked-at imports that are remembered; older ones must be looked at again. */
const MOST_WAITING = 3;
const waiting = new Map<string, Waiting>();
const database = workerData as string;

interface Row {
  id: string;
  version: number;
  document: string;
  author: string;
}

function library(): { movements: Map<string, Movement>; rows: Map<string, Row> } {
  const db = new Database(database, { readonly: true });
  try {
    const rows = db.prepare('SELECT id, version, document, author FROM movements').all() as Row[];
    const movements = rows.flatMap(({ id, document }): [string, Movement][] => {
      const movement = parsed(document) as Movement | undefined;
      return movement ? [[id, movement]] : [];
    });
    return { movements: new Map(movements), rows: new Map(rows.map((row) => [row.id, row])) };
  } finally {
    db.close();
  }
}

function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new PackError([{ path: 'file', message: 'is not UTF-8 text; save it as UTF-8 and try again' }]);
  }
}

function preview(importId: string, kind: ImportKind, bytes: Uint8Array): Looked {
  const { movements, rows } = library();
  const find = (id: string) => movements.get(id);
  const text = textOf(bytes);
  const wrong = kind === 'pack' ? wrongInJson(text) : null;
  if (wrong) throw new PackError([wrong]);
  const pack = kind === 'csv' ? readCsv(text, find) : readPack(text);
  const listed = previewImport(pack, find, (id) => (rows.get(id)?.author ?? '') !== '');
  // Links must lead somewhere whatever is chosen later, so the whole pack is tried now.
  mergeImport([...movements.values()], pack, new Set(listed.map((row) => row.id)));
  const versions = pack.movements.flatMap(({ id }): [string, number][] => {
    const row = rows.get(id);
    return row ? [[id, row.version]] : [];
  });
  waiting.set(importId, { pack, versions: new Map(versions) });
  for (const old of [...waiting.keys()].slice(0, -MOST_WAITING)) waiting.delete(old);
  return { rows: listed, versions };
}

function prepare({ pack, versions }: Waiting, take: readonly string[]): Prepared {
  const taken = new Set(take);
  const known = new Set(pack.movements.map(({ id }) => id));
  const unknown = take.filter((id) => !known.has(id));
  if (unknown.length > 0)
    throw new PackError(unknown.map((id) => ({ path: 'take', message: `"${id}" is not in this pack` })));
  mergeImport([...library().movements.values()], pack, taken);
  return {
    texts: pack.movements.filter(({ id }) => taken.has(id)).map((movement) => [movement.id, JSON.stringify(movement)]),
    versions: [...versions].filter(([id]) => taken.has(id)),
  };
}

/** @throws PackError for a file that is none, or damaged */
function clientIn(bytes: Uint8Array): ClientFile {
  const path = 'file';
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new PackError([{ path, message: 'is not a client file: it is not UTF-8 text' }]);
  }
  const wrong = wrongInJson(text);
  if (wrong) throw new PackError([wrong]);
  const input = parsed(text);
  if (input === undefined) throw new PackError([{ path, message: 'is not a client file: it cannot be read as JSON' }]);
  const checked = checkClientFile(input);
  if (!checked.ok) throw new PackError(checked.problems.slice(0, MOST_PROBLEMS));
  return checked.value;
}

/** How many problems are worth showing at once. */
const MOST_PROBLEMS = 50;

function answer(asked: Asked): Answered {
  const { task } = asked;
  try {
    if (asked.do === 'client') return { task, client: clientIn(asked.bytes) };
    const { importId } = asked;
    if (asked.do === 'preview') return { task, looked: preview(importId, asked.kind, asked.bytes) };
    const found = waiting.get(importId);
    return found ? { task, prepared: prepare(found, asked.take) } : { task, forgotten: true };
  } catch (error) {
    if (error instanceof PackError) return { task, problems: error.problems };
    throw error;
  }
}

parentPort?.on('message', (asked: Asked) => parentPort?.postMessage(answer(asked)));
