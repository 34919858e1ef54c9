/** Taking in a pack or a list: first what it would do, then, all or nothing, what was chosen of it. The heavy part is done in a thread of its own. */
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { ImportPreview } from '@waxwing/core/formats';
import { Worker } from 'node:worker_threads';
import { v7 as uuidv7 } from 'uuid';
import { StudioFolder } from '../database/studio-folder.js';
import { threadFile } from '../database/thread-file.js';
import { LibraryService } from '../movements/library.service.js';
import { invalid, notFound } from '../problems/problem.js';
import type { Answered, Asked, ImportKind, Prepared } from './preparing.js';

type Unnumbered = Asked extends infer A ? (A extends { task: number } ? Omit<A, 'task'> : never) : never;

@Injectable()
export class ImportsService implements OnApplicationShutdown {
  private thread: Worker | undefined;
  private readonly asked = new Map<number, { done: (answer: Answered) => void; failed: (error: Error) => void }>();
  private tasks = 0;

  constructor(
    private readonly folder: StudioFolder,
    private readonly library: LibraryService,
  ) {}

  /** @throws 422 with a line or a path for everything that is wrong */
  async preview(kind: ImportKind, bytes: Buffer): Promise<ImportPreview> {
    const importId = uuidv7();
    const answer = await this.ask({ do: 'preview', importId, kind, bytes });
    if ('problems' in answer) throw invalid([...answer.problems]);
    if (!('looked' in answer)) throw notFound('import', importId);
    return { importId, rows: answer.looked.rows };
  }

  /**
   * Takes the chosen movements in, in one piece.
   * @returns how many were taken
   * @throws 404 for an import that is forgotten, 422 when the choice leaves links that lead nowhere, 409 when a movement changed since the look
   */
  async apply(importId: string, take: readonly string[], progress: (done: number) => void): Promise<number> {
    const answer = await this.ask({ do: 'prepare', importId, take });
    if ('forgotten' in answer) throw notFound('import', importId);
    if ('problems' in answer) throw invalid([...answer.problems]);
    const { texts, versions } = (answer as { prepared: Prepared }).prepared;
    await this.library.takeIn(new Map(texts), new Map(versions), progress);
    return texts.length;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.thread?.terminate();
    this.thread = undefined;
  }

  private ask(task: Unnumbered): Promise<Answered> {
    this.tasks += 1;
    const number = this.tasks;
    const answer = new Promise<Answered>((done, failed) => this.asked.set(number, { done, failed }));
    this.worker().postMessage({ ...task, task: number });
    return answer;
  }

  private worker(): Worker {
    if (this.thread) return this.thread;
    const thread = new Worker(threadFile('preparing'), { workerData: this.folder.database });
    // A thread that waits for work must not keep the server alive.
    thread.unref();
    thread.on('message', (answer: Answered) => {
      this.asked.get(answer.task)?.done(answer);
      this.asked.delete(answer.task);
    });
    thread.on('error', (error: Error) => {
      this.thread = undefined;
      for (const { failed } of this.asked.values()) failed(error);
      this.asked.clear();
    });
    return (this.thread = thread);
  }
}
