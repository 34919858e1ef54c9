/** A backup a day, kept in the data folder: the last seven days, and the last of each of the four weeks before. */
import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';

import { Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { KeptBackup } from '@waxwing/core/client';
import Database from 'better-sqlite3';
import { DataSource } from 'typeorm';

import { eraseClient } from '../clients/erase.js';
import { prepared } from '../database/connection.js';
import { StudioFolder } from '../database/studio-folder.js';
import { Writer } from '../database/writer.js';
import { openedFile, removeMessagesOf } from '../plans/messages.js';
import type { Sealer } from '../sealed/sealer.js';
import { ASIDE } from './backup-file.js';

const NAME = /^waxwing-(\d{4}-\d{2}-\d{2})\.backup$/;
const DAYS = 7;
const WEEKS = 4;
const DAY_MS = 86_400_000;
/** How often is looked whether a new day has begun. */
const LOOK_MS = 10 * 60_000;

@Injectable()
export class BackupsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private timer: NodeJS.Timeout | undefined;
  private running: ChildProcess | undefined;
  /** The last one could not be made: the disk is full, or the database cannot be read to its end. */
  failed = false;

  constructor(
    private readonly folder: StudioFolder,
    private readonly database: DataSource,
  ) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => void this.today(), LOOK_MS).unref();
    // A little after the start, which should not wait for it.
    setTimeout(() => void this.today(), 5_000).unref();
  }

  /** Nothing of this server writes into the folder once it has ended. */
  async onApplicationShutdown(): Promise<void> {
    clearInterval(this.timer);
    const { running } = this;
    if (running?.kill()) await once(running, 'exit');
  }

  /** Latest first. */
  list(): KeptBackup[] {
    return this.names().map((file) => {
      const { size, mtime } = statSync(join(this.folder.backups, file));
      return { file, madeAt: mtime.toISOString(), bytes: size };
    });
  }

  /** Deletes a client from every backup that is kept, from what a restore put aside, and from the copies that were made before an update. */
  async erase(clientId: string): Promise<void> {
    // One that is being made may still hold them.
    if (this.running?.exitCode === null) await once(this.running, 'exit').catch(() => undefined);
    for (const name of readdirSync(this.folder.backups)) {
      const file = join(this.folder.backups, name);
      if (NAME.test(name) || name.startsWith('before-')) this.eraseIn(file, clientId);
      // Others have a turn between any two.
      await new Promise(setImmediate);
    }
    for (const name of readdirSync(this.folder.path).filter((one) => one.startsWith(ASIDE))) {
      const aside = new StudioFolder(join(this.folder.path, name));
      if (existsSync(aside.database)) this.eraseIn(aside.database, clientId);
      await removeMessagesOf({ outbox: aside.outbox, sealer: this.folder.sealer }, clientId);
    }
  }

  /** A copy in which it cannot be done, because it has other tables or is damaged, goes as a whole: deleted for good is deleted everywhere. */
  private eraseIn(file: string, clientId: string): void {
    try {
      const db = prepared(new Database(file));
      try {
        db.transaction(() => {
          if (db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'backup_files'`).get())
            eraseMessages(db, clientId, this.folder.sealer);
          eraseClient(new Writer(db, this.database, this.folder.sealer), clientId);
        })();
      } finally {
        db.close();
      }
    } catch {
      for (const end of ['', '-wal', '-shm', '-journal']) rmSync(`${file}${end}`, { force: true });
    }
  }

  private names(): string[] {
    if (!existsSync(this.folder.backups)) return [];
    return readdirSync(this.folder.backups)
      .filter((name) => NAME.test(name))
      .sort()
      .reverse();
  }

  /** Makes the backup of today unless it is there. In a process of its own, so that nobody waits for it. */
  private async today(): Promise<void> {
    const day = new Date().toLocaleDateString('en-CA');
    const file = join(this.folder.backups, `waxwing-${day}.backup`);
    if (this.running || existsSync(file)) return;
    const program = fileURLToPath(new URL('./backup.js', import.meta.url));
    // Not bundled: there is nothing to run.
    if (!existsSync(program)) return;
    this.running = spawn(process.execPath, [program, 'backup', file], {
      env: { ...process.env, WAXWING_DATA: this.folder.path },
      stdio: 'ignore',
    });
    const code = await new Promise<number | null>((done) => {
      this.running?.once('exit', done);
      this.running?.once('error', () => done(null));
    });
    this.running = undefined;
    this.failed = code !== 0;
    if (code === 0)
      for (const old of outdated(this.names(), day)) rmSync(join(this.folder.backups, old), { force: true });
    else console.error(`The backup of ${day} could not be made.`);
  }
}

/** Messages that were laid into a backup. */
function eraseMessages(db: Database.Database, clientId: string, sealer: Sealer): void {
  const messages = db.prepare(`SELECT path, bytes FROM backup_files WHERE path LIKE 'outbox/%.json'`).all() as {
    path: string;
    bytes: Buffer;
  }[];
  for (const { path, bytes } of messages)
    if (openedFile(sealer, basename(path), bytes)?.includes(clientId))
      db.prepare('DELETE FROM backup_files WHERE path IN (?, ?)').run(path, path.replace(/json$/, 'eml'));
}

/** Backups that are not needed any more: of names like `waxwing-2030-01-31.backup`, in any order. */
export function outdated(names: readonly string[], today: string): string[] {
  const weeks = new Set<number>();
  return names
    .toSorted()
    .reverse()
    .filter((name) => {
      const days = Math.round((Date.parse(today) - Date.parse(NAME.exec(name)?.[1] ?? '')) / DAY_MS);
      if (days < DAYS) return false;
      const week = Math.floor(days / 7);
      const kept = week <= WEEKS && !weeks.has(week);
      weeks.add(week);
      return !kept;
    });
}
