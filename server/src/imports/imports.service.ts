/** Taking in a pack or a list: first what it would do, then, all or nothing, what was chosen of it. */
import { Injectable } from '@nestjs/common';
import type { ImportPreview } from '@waxwing/core/formats';
import { v7 as uuidv7 } from 'uuid';

import { LibraryService } from '../movements/library.service.js';
import { invalid, notFound } from '../problems/problem.js';
import type { ImportKind } from './preparing.js';
import { PreparingService } from './preparing.service.js';

@Injectable()
export class ImportsService {
  constructor(
    private readonly preparing: PreparingService,
    private readonly library: LibraryService,
  ) {}

  /** @throws 422 with a line or a path for everything that is wrong */
  async preview(kind: ImportKind, bytes: Buffer): Promise<ImportPreview> {
    const importId = uuidv7();
    const answer = await this.preparing.ask({ do: 'preview', importId, kind, bytes });
    if ('problems' in answer) throw invalid([...answer.problems]);
    if (!('looked' in answer)) throw notFound('import', importId);
    return { importId, rows: answer.looked.rows };
  }

  /**
   * Takes the chosen movements in, in one piece.
   * @returns how many were taken
   * @throws 404 for an import that is forgotten, 422 when the choice leaves links that lead nowhere, 409 when a movement changed since the look
   */
  async apply(
    importId: string,
    take: readonly string[],
    by: string,
    progress: (done: number) => void,
  ): Promise<number> {
    const answer = await this.preparing.ask({ do: 'prepare', importId, take });
    if ('problems' in answer) throw invalid([...answer.problems]);
    if (!('prepared' in answer)) throw notFound('import', importId);
    const { texts, versions } = answer.prepared;
    await this.library.takeIn(new Map(texts), new Map(versions), by, progress);
    return texts.length;
  }
}
