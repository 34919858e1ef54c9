/** A backup a day, kept in the data folder: the last seven days, and the last of each of the four weeks before. */
import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';

import { Inject, Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { KeptBackup } from '@waxwing/core/client';
import { DataSource } from 'typeorm';

import { CONFIG, type Config } from '../config.js';
import { isDatabase, StudioFolder } from '../database/studio-folder.js';
import { AuditService } from '../door/audit.service.js';
import { removeMessagesOf } from '../plans/messages.js';
import type { CopiesData, CopyDone, CopyToChange } from '../threads/copies.js';
import { Thread } from '../threads/thread.js';
import { ASIDE } from './backup-file.js';

const NAME = /^waxwing-(\d{4}-\d{2}-\d{2})\.backup$/;
const DAYS = 7;
const WEEKS = 4;
const DAY_MS = 86_400_000;
/** How often is looked whether a new day has begun. */
const LOOK_MS = 10 * 60_000;
const FIRST_LOOK_MS = 5_000;

@Injectable()
export class BackupsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly timers: NodeJS.Timeout[] = [];
  private stopped = false;
  private running: ChildProcess | undefined;
  private readonly copies: Thread<CopyToChange, CopyDone>;
  /** The last one could not be made: the disk is full, or the database cannot be read to its end. */
  failed = false;

  constructor(
    private readonly folder: StudioFolder,
    private readonly database: DataSource,
    private readonly audit: AuditService,
    @Inject(CONFIG) { keys }: Config,
  ) {
    this.copies = new Thread('copies', { database: folder.database, keys } satisfies CopiesData);
  }

  onApplicationBootstrap(): void {
    // The first a little after the start, which should not wait for it.
    this.timers.push(
      setInterval(() => void this.look(), LOOK_MS),
      setTimeout(() => void this.look(), FIRST_LOOK_MS),
    );
    for (const timer of this.timers) timer.unref();
  }

  /** Nothing of this server writes into the folder once it has ended. */
  async onApplicationShutdown(): Promise<void> {
    this.stopped = true;
    for (const timer of this.timers) clearInterval(timer);
    const { running } = this;
    if (running?.kill()) await once(running, 'exit');
    await this.copies.end();
  }

  /** Latest first. */
  list(): KeptBackup[] {
    return this.names().map((file) => {
      const { size, mtime } = statSync(join(this.folder.backups, file));
      return { file, madeAt: mtime.toISOString(), bytes: size };
    });
  }

  /**
   * Takes whoever was deleted out of every copy that is kept: backups of any name, what a restore put aside, and what was copied before an
   * update. Asked for at every deletion, and again after the start and now and then: a copy that somebody was reading, or that was put there
   * since, is done then, and a deletion that was cut off goes on. A copy of years takes seconds, so it is done in a thread beside the server.
   */
  async eraseDeleted(): Promise<void> {
    // One that is being made may still hold them.
    if (this.running?.exitCode === null) await once(this.running, 'exit').catch(() => undefined);
    const erased = await this.database.query<{ id: string }[]>('SELECT id FROM erased');
    const ids = erased.map(({ id }) => id);
    if (ids.length === 0) return;
    const aside = readdirSync(this.folder.path)
      .filter((name) => name.startsWith(ASIDE))
      .map((name) => new StudioFolder(join(this.folder.path, name)));
    const kept = readdirSync(this.folder.backups).map((name) => join(this.folder.backups, name));
    for (const file of [...kept.filter(isCopy), ...aside.map(({ database }) => database).filter(existsSync)]) {
      if (this.stopped) return;
      // What a thread that broke off has not done is done the next time.
      const { done } = await this.copies.ask({ file, ids }).catch(() => ({ done: 'waits' as const }));
      if (done === 'removed')
        this.audit.note({ visitor: null, device: 'this machine', action: 'copy-removed', fields: [basename(file)] });
    }
    for (const { outbox } of [this.folder, ...aside])
      await removeMessagesOf({ outbox, sealer: this.folder.sealer }, (clientId) => ids.includes(clientId));
  }

  private names(): string[] {
    if (!existsSync(this.folder.backups)) return [];
    return readdirSync(this.folder.backups)
      .filter((name) => NAME.test(name))
      .sort()
      .reverse();
  }

  private async look(): Promise<void> {
    await this.eraseDeleted();
    if (!this.stopped) await this.today();
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

const HALF = /\.part$|-(wal|shm|journal)$/;

/** Whether a file is a database that was copied here, whatever it is called; anything else that somebody put here is theirs. */
function isCopy(file: string): boolean {
  if (HALF.test(file) || !statSync(file).isFile()) return false;
  return isDatabase(file);
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
