/** Taking in a pack or a list: first what it would do, then, all or nothing, what was chosen of it. */
import { Injectable } from '@nestjs/common';
import {
  mergeImport,
  PackError,
  previewImport,
  readCsv,
  readPack,
  type ImportPreview,
  type Pack,
} from '@waxwing/core/formats';
import { v7 as uuidv7 } from 'uuid';
import { LibraryService } from '../movements/library.service.js';
import { invalid, notFound } from '../problems/problem.js';

export type ImportKind = 'pack' | 'csv';

/** What was looked at and may be taken, and the versions that the look was made at. */
interface Waiting {
  pack: Pack;
  versions: ReadonlyMap<string, number>;
}

/** Looked-at imports that are remembered; older ones must be looked at again. */
const MOST_WAITING = 3;

@Injectable()
export class ImportsService {
  private readonly waiting = new Map<string, Waiting>();

  constructor(private readonly library: LibraryService) {}

  /** @throws 422 with a line or a path for everything that is wrong */
  preview(kind: ImportKind, bytes: Buffer): ImportPreview {
    const pack = orInvalid(() => {
      const text = textOf(bytes);
      return kind === 'csv' ? readCsv(text, this.library.find) : readPack(text);
    });
    const rows = previewImport(pack, this.library.find, this.library.touched);
    // Links must lead somewhere whatever is chosen later, so the whole pack is tried now.
    orInvalid(() => mergeImport(this.library.all(), pack, new Set(rows.map((row) => row.id))));
    const importId = uuidv7();
    const versions = new Map(
      pack.movements.flatMap(({ id }): [string, number][] => {
        const version = this.library.versionOf(id);
        return version === undefined ? [] : [[id, version]];
      }),
    );
    this.waiting.set(importId, { pack, versions });
    for (const old of [...this.waiting.keys()].slice(0, -MOST_WAITING)) this.waiting.delete(old);
    return { importId, rows };
  }

  /**
   * Takes the chosen movements in, in one transaction.
   * @returns how many were taken
   * @throws 404 for an import that is forgotten, 422 when the choice leaves links that lead nowhere, 409 when a movement changed since the look
   */
  async apply(importId: string, take: readonly string[], progress: (done: number) => Promise<void>): Promise<number> {
    const waiting = this.waiting.get(importId);
    if (!waiting) throw notFound('import', importId);
    const taken = new Set(take);
    const unknown = take.filter((id) => !waiting.pack.movements.some((movement) => movement.id === id));
    if (unknown.length > 0)
      throw invalid(unknown.map((id) => ({ path: 'take', message: `"${id}" is not in this pack` })));
    orInvalid(() => mergeImport(this.library.all(), waiting.pack, taken));
    const chosen = new Map(waiting.pack.movements.filter(({ id }) => taken.has(id)).map((m) => [m.id, m]));
    const expected = new Map([...waiting.versions].filter(([id]) => taken.has(id)));
    await this.library.write(chosen, expected, progress);
    this.waiting.delete(importId);
    return chosen.size;
  }
}

function textOf(bytes: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new PackError([{ path: '', message: 'This file is not UTF-8 text. Save it as UTF-8 and try again.' }]);
  }
}

function orInvalid<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof PackError) throw invalid([...error.problems]);
    throw error;
  }
}
