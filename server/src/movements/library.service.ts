/**
 * The library in memory: every movement with its version, the ladder and the search index, read once and rebuilt on a change.
 * All screens read it, and it is changed by hand, so reading is what must be quick.
 * Archived movements are kept for the sessions that used them, but are in no list, ladder or search.
 */
import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Condition } from '@waxwing/core/client';
import {
  buildLadder,
  checkReferences,
  type Health,
  type Ladder,
  type MovementPage,
  type Neighbour,
  type Step,
} from '@waxwing/core/ladder';
import {
  buildFinding,
  checkMovement,
  type DemandLevel,
  difference,
  type FaultKind,
  type Finding,
  type MadeFrom,
  type Movement,
  type MovementSummary,
  type MovementVersion,
  type SearchText,
  searchTextOf,
  wrongTempo,
} from '@waxwing/core/movement';
import { loadCauses, loadConditions, loadDemandLevels, loadFaultKinds } from '@waxwing/library';
import { DataSource, Repository } from 'typeorm';

import { CONFIG, type Config } from '../config.js';
import { isWhole } from '../database/json-column.js';
import { WriteGate } from '../database/write-gate.js';
import type { Writer } from '../database/writer.js';
import { refused } from '../problems/document.js';
import { invalid, notFound, ProblemException, stale } from '../problems/problem.js';
import { HeavyService } from '../threads/heavy.service.js';
import { MovementEntity, MovementVersionEntity } from './movement.entity.js';
import type { ListMovementsQuery } from './movements.dto.js';

/** A row of the list, with its `MovementSummary` already written out. */
interface ListedRow {
  id: string;
  families: readonly string[];
  text: string;
}

/** How many movements are worked on before others have a turn. */
const CHUNK = 100;

/** Lets whatever else is waiting have a turn. */
const others = (): Promise<void> => new Promise(setImmediate);

@Injectable()
export class LibraryService implements OnModuleInit, OnApplicationBootstrap {
  private rows = new Map<string, MovementEntity>();
  private listed: ListedRow[] = [];
  private byId = new Map<string, ListedRow>();
  ladder: Ladder = buildLadder([]);
  /** One library is taken in at a time. */
  private taking: Promise<void> = Promise.resolve();
  readonly faultKinds: readonly FaultKind[];
  readonly causes: readonly string[];
  readonly demandLevels: readonly DemandLevel[];
  readonly conditions: readonly Condition[];
  // Built when first asked for: a start or an import should not wait for them.
  private finding: Finding | undefined;
  private looked: Promise<Health> | undefined;

  constructor(
    @InjectRepository(MovementEntity) private readonly repository: Repository<MovementEntity>,
    private readonly database: DataSource,
    private readonly gate: WriteGate,
    @Inject(CONFIG) config: Config,
    private readonly heavy: HeavyService,
  ) {
    this.faultKinds = loadFaultKinds(config.faultKinds);
    this.causes = loadCauses(config.causes);
    this.demandLevels = loadDemandLevels(config.demandLevels);
    this.conditions = loadConditions(config.conditions);
  }

  async onModuleInit(): Promise<void> {
    this.take((await this.repository.find()).filter(isWhole));
  }

  /** What an import that was cut off has left. */
  onApplicationBootstrap(): Promise<void> {
    return this.clearIncoming();
  }

  get size(): number {
    return this.listed.length;
  }

  /** Any movement, archived ones too: old sessions need them. */
  find = (id: string): Movement | undefined => this.rows.get(id)?.document;

  /** Every movement in use, as lists show it, in their order. */
  summaries = (): MovementSummary[] => this.listed.map(({ text }) => JSON.parse(text) as MovementSummary);

  /** What planning needs to know of any movement. */
  summary = (id: string): MovementSummary | undefined => {
    const movement = this.find(id);
    return movement && { ...movement, level: this.ladder.levels.get(id) ?? 0 };
  };

  /** Whether a movement was changed here since it came. */
  touched = (id: string): boolean => (this.rows.get(id)?.author ?? '') !== '';

  /** Every movement, archived ones too. */
  all(): Movement[] {
    return [...this.rows.values()].map((row) => row.document);
  }

  /** The version that a movement is at; undefined for one that is not here. */
  versionOf = (id: string): number | undefined => this.rows.get(id)?.version;

  /** Every movement that is not archived. */
  active(): Movement[] {
    return [...this.rows.values()].filter((row) => row.archivedAt === null).map((row) => row.document);
  }

  /** Adds movements that the library does not have yet; what a studio has changed stays as it is. */
  addMissing(movements: readonly Movement[]): void {
    const updatedAt = new Date().toISOString();
    const fresh = movements
      .filter(({ id }) => !this.rows.has(id))
      .map((document) => ({ id: document.id, version: 1, document, updatedAt, author: '', archivedAt: null }));
    if (fresh.length === 0) return;
    this.gate.write((writer) => writer.insert(MovementEntity, fresh));
    this.take([...this.rows.values(), ...fresh]);
  }

  /** A `MovementList` as JSON text: a whole library is asked for often and changes seldom, so each row is written out once a change. */
  list({ q, family, archived, cursor, limit }: ListMovementsQuery): string {
    const shelf = archived ? this.archivedRows() : this.listed;
    const found =
      q?.trim() && !archived
        ? this.finder()
            .movements(q)
            .ids.flatMap((id) => this.byId.get(id) ?? [])
        : shelf;
    const all = family ? found.filter((row) => row.families.includes(family)) : found;
    const start = cursor ? all.findIndex(({ id }) => id === cursor) + 1 : 0;
    const items = all.slice(start, start + limit);
    const nextCursor = start + limit < all.length ? (items.at(-1)?.id ?? null) : null;
    const texts = items.map(({ text }) => text).join(',');
    return `{"items":[${texts}],"nextCursor":${JSON.stringify(nextCursor)},"total":${all.length}}`;
  }

  searchTexts(): SearchText[] {
    return this.active().map(searchTextOf);
  }

  /** Looked through once a change, and never for longer than that: one that was asked for before a change tells nothing of it. */
  health(): Promise<Health> {
    if (this.looked) return this.looked;
    const looked = this.heavy.health();
    // What failed is tried again.
    looked.catch(() => (this.looked = undefined));
    return (this.looked = looked);
  }

  /** One movement with its neighbours. @throws 404 */
  page(id: string): MovementPage {
    const { document, version, updatedAt, author, archivedAt } = this.row(id);
    const rung = this.ladder.rungs.get(id) ?? { easier: [], harder: [], sideways: [] };
    const named = (steps: readonly Step[]): Neighbour[] =>
      steps.map((step) => ({ ...step, name: this.find(step.to)?.name ?? step.to }));
    return {
      movement: document,
      version,
      updatedAt,
      author,
      archivedAt,
      level: this.ladder.levels.get(id) ?? 0,
      easier: named(rung.easier),
      harder: named(rung.harder),
      sideways: named(rung.sideways),
    };
  }

  /** All versions, latest first, each with what it changed. @throws 404 */
  async versions(id: string): Promise<MovementVersion[]> {
    const { document, version, updatedAt, author } = this.row(id);
    const earlier = await this.database
      .getRepository(MovementVersionEntity)
      .find({ where: { movementId: id }, order: { version: 'DESC' } });
    const all = [{ version, document, author, savedAt: updatedAt }, ...earlier];
    return all.map((one, i) => ({
      version: one.version,
      author: one.author,
      savedAt: one.savedAt,
      movement: one.document,
      changes: all[i + 1] ? difference(all[i + 1]?.document ?? {}, one.document) : [],
    }));
  }

  /** A new movement. @throws 409 when the id is taken, 422 naming the fields */
  create(input: unknown, by: string): MovementPage {
    const movement = this.checked(input);
    if (this.rows.has(movement.id))
      throw new ProblemException(409, `There is a movement "${movement.id}" already.`, [
        { path: 'id', message: 'is taken; choose another name' },
      ]);
    this.write(new Map([[movement.id, movement]]), by);
    return this.page(movement.id);
  }

  /** Saves a change as a new version. @throws 404, 409 for a stale version, 422 naming the fields; nothing is changed then. */
  edit(id: string, { version, ...change }: MadeFrom, by: string): MovementPage {
    const row = this.row(id);
    if (row.version !== version) throw stale('movement', version, row.version);
    const movement = this.checked({ ...row.document, ...change, id });
    this.write(new Map([[id, movement]]), by, new Map([[id, version]]));
    return this.page(id);
  }

  /** Takes a movement out of the library, or puts it back. @throws 404, 409 for a stale version */
  archive(id: string, version: number, away: boolean): MovementPage {
    const row = this.row(id);
    const archivedAt = away ? new Date().toISOString() : null;
    const written = this.gate.write((writer) => writer.update(MovementEntity, { id, version }, { archivedAt }));
    if (written !== 1) throw stale('movement', version, row.version);
    this.rows.set(id, { ...row, archivedAt });
    this.take([...this.rows.values()]);
    return this.page(id);
  }

  /**
   * Writes movements as new versions, keeping what they replace.
   * @param by whose versions they are
   * @param expected versions that the changes were made from; a movement that is not named is written over whatever is there
   * @throws 409 when an expected version is stale; nothing is changed then
   */
  private write(
    movements: ReadonlyMap<string, Movement>,
    by: string,
    expected: ReadonlyMap<string, number> = new Map(),
  ): void {
    const rows = this.gate.write((writer) => {
      claim(writer, expected);
      const written = [...movements].map(([id, document]) => this.nextOf(writer, id, document, by));
      keepReplaced(writer, JSON.stringify([...movements.keys()]));
      writer.upsert(MovementEntity, written);
      return written;
    });
    for (const row of rows) this.rows.set(row.id, row);
    this.take([...this.rows.values()]);
  }

  private nextOf(writer: Writer, id: string, document: Movement, by: string): MovementEntity {
    const here = this.rows.get(id);
    return {
      id,
      version: (here?.version ?? 0) + 1,
      document,
      updatedAt: new Date().toISOString(),
      author: by || authorIn(writer),
      archivedAt: here?.archivedAt ?? null,
    };
  }

  /**
   * Takes in many movements that were prepared outside: laid down beside the library in small pieces, then taken over in one.
   * Everybody else's writes go on in between.
   * @param texts movements as JSON, by id
   * @param expected as for `write`
   * @param by as for `write`
   * @param progress told how many are laid down
   * @throws 409 when an expected version is stale; nothing is changed then
   */
  takeIn(
    texts: ReadonlyMap<string, string>,
    expected: ReadonlyMap<string, number>,
    by: string,
    progress: (done: number) => void,
  ): Promise<void> {
    const turn = this.taking.then(() => this.layDownAndTake(texts, expected, by, progress));
    this.taking = turn.catch(() => undefined);
    return turn;
  }

  private async layDownAndTake(
    texts: ReadonlyMap<string, string>,
    expected: ReadonlyMap<string, number>,
    by: string,
    progress: (done: number) => void,
  ): Promise<void> {
    const all = [...texts];
    // Said before anything is laid down; asked again when it is taken over.
    this.gate.write((writer) => claim(writer, expected));
    try {
      for (let i = 0; i < all.length; i += CHUNK) {
        this.gate.write((writer) => {
          for (const [id, text] of all.slice(i, i + CHUNK))
            writer.run('INSERT OR REPLACE INTO incoming (id, document) VALUES (?, ?)', id, text);
        });
        progress(Math.min(i + CHUNK, all.length));
        await others();
      }
      const rows = this.gate.write((writer) => {
        claim(writer, expected);
        keepReplaced(writer, JSON.stringify(all.map(([id]) => id)));
        writer.run(
          `INSERT INTO movements (id, version, document, updatedAt, author, archivedAt)
           SELECT id, 1, document, ?, ?, NULL FROM incoming WHERE true
           ON CONFLICT (id) DO UPDATE SET version = version + 1, document = excluded.document,
             updatedAt = excluded.updatedAt, author = excluded.author`,
          new Date().toISOString(),
          by || authorIn(writer),
        );
        return writer.all<Omit<MovementEntity, 'document'>>(
          'SELECT id, version, updatedAt, author, archivedAt FROM movements WHERE id IN (SELECT id FROM incoming)',
        );
      });
      await this.adopt(rows, texts);
    } finally {
      await this.clearIncoming();
    }
  }

  /** What is deleted is overwritten, so that a large import is cleared away in pieces as well. */
  private async clearIncoming(): Promise<void> {
    const some = `DELETE FROM incoming WHERE id IN (SELECT id FROM incoming LIMIT ${CHUNK})`;
    while (this.gate.write((writer) => writer.run(some)) > 0) await others();
  }

  /** Takes written rows over into memory, a few at a time. */
  private async adopt(
    rows: readonly Omit<MovementEntity, 'document'>[],
    texts: ReadonlyMap<string, string>,
  ): Promise<void> {
    const fresh: MovementEntity[] = [];
    for (const row of rows) {
      fresh.push({ ...row, document: JSON.parse(texts.get(row.id) ?? '') as Movement });
      if (fresh.length % CHUNK === 0) await others();
    }
    await this.takeSlowly(fresh);
  }

  private checked(input: unknown): Movement {
    const checked = checkMovement(input);
    if (!checked.ok) throw refused(checked.problems);
    const wrong = wrongTempo(checked.value.dose);
    if (wrong) throw invalid([{ path: 'dose.tempo', message: wrong }]);
    const others = [...this.rows.values()].filter((row) => row.id !== checked.value.id).map((row) => row.document);
    const broken = checkReferences([...others, checked.value]);
    if (broken.length > 0)
      throw invalid(
        broken.map(({ movementId, path, message }) => ({
          path: movementId === checked.value.id || path === 'links' ? path : `${movementId}, ${path}`,
          message,
        })),
      );
    return checked.value;
  }

  private row(id: string): MovementEntity {
    const row = this.rows.get(id);
    if (!row) throw notFound('movement', id);
    return row;
  }

  private finder(): Finding {
    return (this.finding ??= buildFinding(this.searchTexts(), this.faultKinds));
  }

  private archivedRows(): ListedRow[] {
    return [...this.rows.values()]
      .filter((row) => row.archivedAt !== null)
      .map(({ document }) => listedOf(summaryOf(document, 0)))
      .sort((a, b) => a.id.localeCompare(b.id));
  }

  private take(rows: readonly MovementEntity[]): void {
    const steps = layOut(rows);
    let step = steps.next();
    while (!step.done) step = steps.next();
    this.settle(step.value);
  }

  /** Takes rows over in small steps, with a turn for others between any two; begun anew when one of them changed the library meanwhile. */
  private async takeSlowly(fresh: readonly MovementEntity[]): Promise<void> {
    for (;;) {
      const before = this.rows;
      const rows = new Map(before);
      for (const row of fresh) rows.set(row.id, row);
      const steps = layOut([...rows.values()]);
      let step = steps.next();
      for (; !step.done; step = steps.next()) await others();
      if (this.rows !== before) continue;
      this.settle(step.value);
      return;
    }
  }

  private settle({ rows, ladder, listed }: LaidOut): void {
    this.rows = rows;
    this.ladder = ladder;
    this.listed = listed;
    this.byId = new Map(listed.map((row) => [row.id, row]));
    this.finding = undefined;
    this.looked = undefined;
  }
}

/** A library as it is held in memory. */
interface LaidOut {
  rows: Map<string, MovementEntity>;
  ladder: Ladder;
  listed: ListedRow[];
}

/** Lays a library out, step by step. */
function* layOut(rows: readonly MovementEntity[]): Generator<void, LaidOut> {
  const active = rows.filter((row) => row.archivedAt === null).map((row) => row.document);
  const ladder = buildLadder(active);
  yield;
  const inOrder = active
    .map((movement) => summaryOf(movement, ladder.levels.get(movement.id) ?? 0))
    .sort(byFamilyAndLevel);
  yield;
  const listed: ListedRow[] = [];
  for (const summary of inOrder) {
    listed.push(listedOf(summary));
    if (listed.length % CHUNK === 0) yield;
  }
  return { rows: new Map(rows.map((row) => [row.id, row])), ladder, listed };
}

function summaryOf(movement: Movement, level: number): MovementSummary {
  const { cues: _c, faults: _f, breath: _b, cautions: _k, how: _h, feel: _l, ...rest } = movement;
  return { ...rest, level };
}

const listedOf = (summary: MovementSummary): ListedRow => ({
  id: summary.id,
  families: summary.families,
  text: JSON.stringify(summary),
});

const byFamilyAndLevel = (a: MovementSummary, b: MovementSummary): number =>
  (a.families[0] ?? '').localeCompare(b.families[0] ?? '') || a.level - b.level || a.name.localeCompare(b.name);

/** Fails unless every row is still at the version that a change was made from. @throws 409 */
function claim(writer: Writer, expected: ReadonlyMap<string, number>): void {
  for (const [id, version] of expected) {
    const row = writer.get<{ version: number }>('SELECT version FROM movements WHERE id = ?', id);
    if (row?.version !== version) throw stale('movement', version, row?.version ?? 0);
  }
}

/** Keeps what is about to be replaced as an earlier version. @param ids a list as JSON */
const keepReplaced = (writer: Writer, ids: string): number =>
  writer.run(
    `INSERT INTO movement_versions (movementId, version, document, author, savedAt)
     SELECT id, version, document, author, updatedAt FROM movements WHERE id IN (SELECT value FROM json_each(?))`,
    ids,
  );

/** Whoever works in this studio: there is no sign-in yet. */
const authorIn = (writer: Writer): string =>
  writer.get<{ trainer: string }>('SELECT trainer FROM studio WHERE id = 1')?.trainer || 'the trainer';
