/**
 * The library pack: movements as one JSON document that another place can take in.
 * Reading is all or nothing: every problem is named by its path, and a pack with one is not used.
 */
import { checkReferences } from '../ladder/references.js';
import { canonical, difference } from '../movement/difference.js';
import { type Movement, movementSchema } from '../movement/schema.js';
import { upgradeMovement, workedOut } from '../movement/upgrade.js';
import { changeSchema } from '../movement/version.js';
import { fieldPath, type Problem, problemsOf } from '../schema/problem.js';
import { z } from '../schema/zod.js';

export const PACK_FORMAT = 'waxwing-library';
export const PACK_VERSION = 5;
/** Packs of these versions are brought up to date as they are read. */
const OLDER_VERSIONS = [1, 2, 3, 4] as const;

export const packSchema = z.strictObject({
  format: z.literal(PACK_FORMAT),
  version: z.literal(PACK_VERSION),
  movements: z.array(movementSchema),
});

export interface Pack extends z.infer<typeof packSchema> {}

/** A pack as it was read. */
export interface ReadPack extends Pack {
  /** By movement: what the form of an earlier version did not say, and was worked out. */
  workedOut: ReadonlyMap<string, readonly string[]>;
}

/** A pack is not what it should be. */
export class PackError extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map(({ path, message }) => (path ? `${path} ${message}` : message)).join('\n'));
    this.name = 'PackError';
  }
}

/** A pack of these movements, in order of their ids, so that the same library always gives the same text. */
export const packOf = (movements: readonly Movement[]): Pack => ({
  format: PACK_FORMAT,
  version: PACK_VERSION,
  movements: movements.toSorted((a, b) => (a.id < b.id ? -1 : 1)),
});

/** The JSON Schema of a pack, for other programs. */
export const packJsonSchema = (): object => ({
  ...z.toJSONSchema(packSchema, { io: 'input', unrepresentable: 'any' }),
  title: 'Waxwing library pack',
});

/** How many problems are worth showing at once. */
const MOST_PROBLEMS = 50;

/**
 * Reads a pack.
 * @throws PackError with a line for text that is not JSON, a path for everything else.
 */
export function readPack(text: string): ReadPack {
  const input = parseJson(text);
  const head = headProblem(input);
  if (head) throw new PackError([head]);
  const today = upToDate(input);
  const result = packSchema.safeParse(today, { reportInput: true });
  if (!result.success) throw new PackError(problemsOf(result.error).slice(0, MOST_PROBLEMS));
  const repeated = repeatedIds(result.data.movements);
  if (repeated.length > 0) throw new PackError(repeated);
  return { ...result.data, workedOut: workedOutIn(input, today) };
}

function workedOutIn(input: unknown, today: unknown): Map<string, string[]> {
  const all = (pack: unknown) => (pack as { movements: { id: string }[] }).movements;
  const found = all(today).map((after, i): [string, string[]] => [after.id, workedOut(all(input)[i], after)]);
  return new Map(found.filter(([, words]) => words.length > 0));
}

function upToDate(input: unknown): unknown {
  const { version, movements, ...rest } = input as { version?: unknown; movements?: unknown };
  const from = OLDER_VERSIONS.find((one) => one === version);
  if (from === undefined || !Array.isArray(movements)) return input;
  return { ...rest, version: PACK_VERSION, movements: movements.map((one) => upgradeMovement(one, from)) };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    const at = /position (\d+)/.exec(message);
    const before = text.slice(0, at ? Number(at[1]) : text.length).split('\n');
    const where = `line ${before.length}, column ${(before.at(-1)?.length ?? 0) + 1}`;
    throw new PackError([{ path: where, message: 'is not JSON; the file may have been cut short' }]);
  }
}

/** Says of a wrong file what it is, instead of listing every field that is missing. */
function headProblem(input: unknown): Problem | null {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return { path: 'file', message: 'is not a library pack: it is not a JSON object' };
  const { format, version } = input as { format?: unknown; version?: unknown };
  if (format !== PACK_FORMAT) return { path: 'format', message: `must be "${PACK_FORMAT}"` };
  if (![...OLDER_VERSIONS, PACK_VERSION].some((one) => one === version))
    return {
      path: 'version',
      message: `is ${JSON.stringify(version)}, but only ${OLDER_VERSIONS.join(', ')} and ${PACK_VERSION} can be read here`,
    };
  return null;
}

function repeatedIds(movements: readonly Movement[]): Problem[] {
  const first = new Map<string, number>();
  return movements.flatMap(({ id }, i): Problem[] => {
    const before = first.get(id);
    first.set(id, before ?? i);
    return before === undefined
      ? []
      : [{ path: `movements[${i}].id`, message: `"${id}" is also movements[${before}]` }];
  });
}

/**
 * `new`: not here yet; `same`: nothing to do; `changed`: only the pack has changed it; `conflict`: changed here as well.
 */
export const IMPORT_STATES = ['new', 'same', 'changed', 'conflict'] as const;
export type ImportState = (typeof IMPORT_STATES)[number];

const rowSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  state: z.enum(IMPORT_STATES),
  changes: z.array(changeSchema),
  /** What the pack did not say, and was worked out from its earlier form. */
  workedOut: z.array(z.string()).readonly(),
});
export type ImportRow = z.infer<typeof rowSchema>;

/** What a pack would do to a library. `touched` says whether a movement was changed here. */
export function previewImport(
  { movements, workedOut }: Pack & Partial<Pick<ReadPack, 'workedOut'>>,
  find: (id: string) => Movement | undefined,
  touched: (id: string) => boolean,
): ImportRow[] {
  return movements.map((movement) => {
    const here = find(movement.id);
    const { id, name } = movement;
    const row = { id, name, changes: [], workedOut: workedOut?.get(id) ?? [] };
    if (!here) return { ...row, state: 'new' };
    if (canonical(here) === canonical(movement)) return { ...row, state: 'same' };
    return { ...row, state: touched(id) ? 'conflict' : 'changed', changes: difference(here, movement) };
  });
}

/**
 * The library as it would be with the taken movements in it.
 * @throws PackError when links would then lead nowhere or run in a circle.
 */
export function mergeImport(library: readonly Movement[], pack: Pack, taken: ReadonlySet<string>): Movement[] {
  const index = new Map(pack.movements.map((movement, i) => [movement.id, i]));
  const fresh = pack.movements.filter(({ id }) => taken.has(id));
  const merged = [...library.filter(({ id }) => !taken.has(id)), ...fresh];
  const problems = checkReferences(merged).map(({ movementId, path, message }): Problem => {
    const i = index.get(movementId);
    return { path: i === undefined ? `${movementId}, ${path}` : `${fieldPath(['movements', i])}.${path}`, message };
  });
  if (problems.length > 0) throw new PackError(problems.slice(0, MOST_PROBLEMS));
  return merged;
}

/** What an import would do, before it is done. */
export const importPreviewSchema = z.strictObject({ importId: z.string(), rows: z.array(rowSchema) });
export type ImportPreview = z.infer<typeof importPreviewSchema>;

/** One line of an import under way. */
export type ImportProgress = { done: number; total: number } | { finished: number } | { problem: string };
