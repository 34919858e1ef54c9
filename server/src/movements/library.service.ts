/**
 * The library in memory: every movement with its version, the catalog and the search index, read once and rebuilt on a change.
 * All screens read it, and it is changed by hand, so reading is what must be quick.
 * Archived movements are kept for the sessions that used them, but are in no list, ladder or search.
 */
import { Injectable, OnModuleInit } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { MovementPage, MovementSummary, MovementVersion, Neighbour } from '@waxwing/core/formats';
import {
  buildCatalog,
  checkReferences,
  libraryHealth,
  type Catalog,
  type Health,
  type Step,
} from '@waxwing/core/ladder';
import {
  buildFinding,
  checkMovement,
  difference,
  searchTextOf,
  type Finding,
  type Movement,
  type SearchText,
} from '@waxwing/core/movement';
import { DataSource, type EntityManager, Repository } from 'typeorm';
import { invalid, notFound, ProblemException, stale } from '../problems/problem.js';
import { StudioEntity } from '../studio/studio.entity.js';
import type { EditMovementDto, ListMovementsQuery } from './movements.dto.js';
import { MovementEntity, MovementVersionEntity } from './movement.entity.js';

/** A row of the list, with its `MovementSummary` already written out. */
interface ListedRow {
  id: string;
  families: readonly string[];
  text: string;
}

/** How many movements are written to the database in one statement. */
const CHUNK = 200;

@Injectable()
export class LibraryService implements OnModuleInit {
  private rows = new Map<string, MovementEntity>();
  private listed: ListedRow[] = [];
  private byId = new Map<string, ListedRow>();
  private catalog: Catalog = buildCatalog([]);
  // Built when first asked for: a start or an import should not wait for them.
  private finding: Finding | undefined;
  private looked: Health | undefined;

  constructor(
    @InjectRepository(MovementEntity) private readonly repository: Repository<MovementEntity>,
    private readonly database: DataSource,
  ) {}

  async onModuleInit(): Promise<void> {
    this.take(await this.repository.find());
  }

  get size(): number {
    return this.listed.length;
  }

  /** Any movement, archived ones too: old sessions need them. */
  find = (id: string): Movement | undefined => this.rows.get(id)?.document;

  /** What planning needs to know of any movement. */
  summary = (id: string): MovementSummary | undefined => {
    const movement = this.find(id);
    return movement && { ...movement, level: this.catalog.ladder.levels.get(id) ?? 0 };
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
  async addMissing(movements: readonly Movement[]): Promise<void> {
    const updatedAt = new Date().toISOString();
    const fresh = movements
      .filter(({ id }) => !this.rows.has(id))
      .map((document) => ({ id: document.id, version: 1, document, updatedAt, author: '', archivedAt: null }));
    if (fresh.length === 0) return;
    await this.repository.save(fresh, { chunk: CHUNK });
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

  health(): Health {
    return (this.looked ??= libraryHealth(this.active()));
  }

  /** One movement with its neighbours. @throws 404 */
  page(id: string): MovementPage {
    const { document, version, updatedAt, author, archivedAt } = this.row(id);
    const rung = this.catalog.ladder.rungs.get(id) ?? { easier: [], harder: [], sideways: [] };
    const named = (steps: readonly Step[]): Neighbour[] =>
      steps.map((step) => ({ ...step, name: this.find(step.to)?.name ?? step.to }));
    return {
      movement: document,
      version,
      updatedAt,
      author,
      archivedAt,
      level: this.catalog.ladder.levels.get(id) ?? 0,
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
  async create(input: unknown): Promise<MovementPage> {
    const movement = this.checked(input);
    if (this.rows.has(movement.id))
      throw new ProblemException(409, `There is a movement "${movement.id}" already.`, [
        { path: 'id', message: 'is taken; choose another name' },
      ]);
    await this.write(new Map([[movement.id, movement]]));
    return this.page(movement.id);
  }

  /** Saves a change as a new version. @throws 404, 409 for a stale version, 422 naming the fields; nothing is changed then. */
  async edit(id: string, { version, ...change }: EditMovementDto): Promise<MovementPage> {
    const row = this.row(id);
    if (row.version !== version) throw stale('movement', version, row.version);
    const given = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    const movement = this.checked({ ...row.document, ...given, id });
    await this.write(new Map([[id, movement]]), new Map([[id, version]]));
    return this.page(id);
  }

  /** Takes a movement out of the library, or puts it back. @throws 404, 409 for a stale version */
  async archive(id: string, version: number, away: boolean): Promise<MovementPage> {
    const row = this.row(id);
    const archivedAt = away ? new Date().toISOString() : null;
    const result = await this.repository.update({ id, version }, { archivedAt });
    if (result.affected !== 1) throw stale('movement', version, row.version);
    this.rows.set(id, { ...row, archivedAt });
    this.take([...this.rows.values()]);
    return this.page(id);
  }

  /**
   * Writes movements as new versions in one transaction, keeping what they replace.
   * @param expected versions that the changes were made from; a movement that is not named is written over whatever is there
   * @param progress told how many are written; it is waited for, so that it may let others have a turn
   * @throws 409 when an expected version is stale; nothing is changed then
   */
  async write(
    movements: ReadonlyMap<string, Movement>,
    expected: ReadonlyMap<string, number> = new Map(),
    progress: (done: number) => Promise<void> = () => Promise.resolve(),
  ): Promise<void> {
    const now = new Date().toISOString();
    const written = await this.database.transaction(async (manager) => {
      const author = await this.author(manager);
      for (const [id, version] of expected) await this.claim(manager, id, version);
      const before = [...movements.keys()].flatMap((id) => this.rows.get(id) ?? []);
      const kept = before.map(({ id, version, document, author: by, updatedAt }) => ({
        movementId: id,
        version,
        document,
        author: by,
        savedAt: updatedAt,
      }));
      for (let i = 0; i < kept.length; i += CHUNK)
        await manager.insert(MovementVersionEntity, kept.slice(i, i + CHUNK));
      const rows = [...movements].map(([id, document]): MovementEntity => {
        const here = this.rows.get(id);
        return {
          id,
          version: (here?.version ?? 0) + 1,
          document,
          updatedAt: now,
          author,
          archivedAt: here?.archivedAt ?? null,
        };
      });
      for (let i = 0; i < rows.length; i += CHUNK) {
        await manager.upsert(MovementEntity, rows.slice(i, i + CHUNK), ['id']);
        await progress(Math.min(i + CHUNK, rows.length));
      }
      return rows;
    });
    for (const row of written) this.rows.set(row.id, row);
    this.take([...this.rows.values()]);
  }

  /** Fails unless a row is still at the version that a change was made from. */
  private async claim(manager: EntityManager, id: string, version: number): Promise<void> {
    // The version in the condition decides between two saves that arrive at the same moment.
    const result = await manager.update(MovementEntity, { id, version }, { version });
    if (result.affected !== 1) throw stale('movement', version, this.row(id).version);
  }

  /** Whoever works in this studio: there is no sign-in yet. */
  private async author(manager: EntityManager): Promise<string> {
    const studio = await manager.findOneBy(StudioEntity, { id: 1 });
    return studio?.trainer || 'the trainer';
  }

  private checked(input: unknown): Movement {
    const checked = checkMovement(input);
    if (!checked.ok) throw invalid(checked.problems);
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
    return (this.finding ??= buildFinding(this.searchTexts()));
  }

  private archivedRows(): ListedRow[] {
    return [...this.rows.values()]
      .filter((row) => row.archivedAt !== null)
      .map(({ document }) => listedOf(summaryOf(document, 0)))
      .sort((a, b) => a.id.localeCompare(b.id));
  }

  private take(rows: readonly MovementEntity[]): void {
    this.rows = new Map(rows.map((row) => [row.id, row]));
    const movements = this.active();
    this.catalog = buildCatalog(movements);
    this.finding = undefined;
    this.looked = undefined;
    const { levels } = this.catalog.ladder;
    this.listed = movements
      .map((movement) => summaryOf(movement, levels.get(movement.id) ?? 0))
      .sort(byFamilyAndLevel)
      .map(listedOf);
    this.byId = new Map(this.listed.map((row) => [row.id, row]));
  }
}

function summaryOf(movement: Movement, level: number): MovementSummary {
  const { cues: _c, faults: _f, breath: _b, cautions: _k, phases: _p, ...rest } = movement;
  return { ...rest, level };
}

const listedOf = (summary: MovementSummary): ListedRow => ({
  id: summary.id,
  families: summary.families,
  text: JSON.stringify(summary),
});

const byFamilyAndLevel = (a: MovementSummary, b: MovementSummary): number =>
  (a.families[0] ?? '').localeCompare(b.families[0] ?? '') || a.level - b.level || a.name.localeCompare(b.name);
