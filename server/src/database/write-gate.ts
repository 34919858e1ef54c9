/**
 * The one way to write. Every change of every feature passes here: one at a time, in one synchronous transaction, with nothing awaited inside;
 * it returns only after the commit. TypeORM's own connection cannot write at all.
 * After a write that failed the connection is proven to be outside of any transaction, or opened anew, before the next.
 */
import { Worker } from 'node:worker_threads';

import { Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import Database from 'better-sqlite3';
import { DataSource } from 'typeorm';

import { threadFile } from '../threads/thread-file.js';
import { preparedForWriting } from './connection.js';
import { holdsOf, keepHolds } from './holds.js';
import { StudioFolder } from './studio-folder.js';
import { Writer } from './writer.js';

@Injectable()
export class WriteGate implements OnApplicationBootstrap, OnApplicationShutdown {
  private db: Database.Database | undefined;
  /** What holds was changed, and could not be written down yet. */
  private owed = false;
  private checkpoints: Worker | undefined;

  constructor(
    private readonly source: DataSource,
    private readonly folder: StudioFolder,
  ) {}

  /**
   * @param work must not wait for anything: what it returns is the answer
   * @throws what `work` throws, or the database; nothing is changed then
   */
  write<T>(work: (writer: Writer) => T): T {
    const db = this.connection();
    try {
      const writer = new Writer(db, this.source, this.folder.sealer);
      const [answer, place] = db
        .transaction((): [T, number] => {
          const done = work(writer);
          if (done instanceof Promise) throw new TypeError('a write must not wait for anything');
          return [done, countWrite(db)];
        })
        .immediate();
      this.folder.note(place);
      this.owed ||= writer.outlasts;
      if (this.owed) this.keepHolds();
      return answer;
    } catch (error) {
      this.prove();
      throw error;
    }
  }

  /** Puts down beside the database what holds whatever is brought back. What was written stands without it: where it cannot be, the next write tries again. */
  private keepHolds(): void {
    try {
      const holds = holdsOf(this.connection());
      if (holds) keepHolds(this.folder.path, holds);
      this.owed = false;
    } catch {
      // The disk is full, or the file belongs to somebody else.
    }
  }

  /** Takes what the write-ahead log still holds of deleted rows out of the files. */
  scrub(): void {
    this.connection().pragma('wal_checkpoint(TRUNCATE)');
  }

  onApplicationBootstrap(): void {
    this.checkpoints = new Worker(threadFile('checkpoints'), { workerData: this.folder.database });
    this.checkpoints.unref();
  }

  async onApplicationShutdown(): Promise<void> {
    await this.checkpoints?.terminate();
    this.db?.close();
    this.db = undefined;
  }

  private connection(): Database.Database {
    return (this.db ??= preparedForWriting(new Database(this.folder.database, { fileMustExist: true })));
  }

  /** A connection that is still inside of a transaction, or cannot be asked, is replaced. */
  private prove(): void {
    const { db } = this;
    if (!db) return;
    try {
      if (db.inTransaction) db.exec('ROLLBACK');
      if (!db.inTransaction && db.prepare('SELECT 1').get()) return;
    } catch {
      // It cannot even roll back.
    }
    this.db = undefined;
    try {
      db.close();
    } catch {
      // Whatever it held is gone with it.
    }
  }
}

/** Counts the write in its own transaction: the number tells an older copy of the studio from a newer one. */
function countWrite(db: Database.Database): number {
  const row = db.prepare('UPDATE meta SET place = place + 1 RETURNING place').get() as { place: number };
  return row.place;
}
