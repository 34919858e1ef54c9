/** What lies sealed in the store, column by column, and how each of them lies. */
import { type Plan, type PlanWords, withoutWords, withWords, wordsOf } from '@waxwing/core/planning';
import type { Programme } from '@waxwing/core/session';

import { parsed } from '../database/json-column.js';
import { isSealed, type Sealer } from './sealer.js';

/** A text, a number, JSON; or a plan, or a programme with one, of which only the words are sealed: the store finds plans by whom they are for. */
type How = 'text' | 'number' | 'json' | 'plan' | 'programme';

interface SealedTable {
  /** What a row is known by: what is sealed opens in that row alone. */
  row: readonly string[];
  columns: Readonly<Record<string, How>>;
}

/**
 * By table. Names of people, times, what was done and how it went lie plain, for the store to find and order: they say who trains, and not
 * how anybody is. `docs/network.md` says so to the owner.
 */
export const SEALED: Readonly<Record<string, SealedTable>> = {
  clients: {
    row: ['id'],
    columns: {
      about: 'text',
      goal: 'text',
      email: 'text',
      healthNote: 'text',
      note: 'text',
      bodyKg: 'number',
      benchmarks: 'json',
      readiness: 'json',
      today: 'json',
      limits: 'json',
      cleared: 'json',
      painsOver: 'json',
    },
  },
  stills: { row: ['id', 'clientId'], columns: { says: 'text', picture: 'text' } },
  digests: { row: ['clientId', 'sessionId'], columns: { document: 'json' } },
  plans: { row: ['id'], columns: { name: 'text', document: 'plan' } },
  sessions: { row: ['id'], columns: { programme: 'programme' } },
  left_taps: { row: ['id'], columns: { document: 'text' } },
};

/** The columns of a row by name, as far as they are known. */
export type Row = Readonly<Record<string, unknown>>;

/** How a column lies; undefined for one that lies plain. */
const howOf = (table: string, column: string): How | undefined => SEALED[table]?.columns[column];

/** @throws Error where the row is not told: what is sealed for none could be put anywhere */
function rowIn(table: string, row: Row): string {
  const parts = (SEALED[table]?.row ?? []).map((column) => row[column]);
  if (parts.some((part) => typeof part !== 'string')) throw new Error(`a row of ${table} is not told`);
  return parts.join('/');
}

/** A plan as it lies: `told` is what it says in words. */
type PlanAtRest = Plan & { told?: string };

/** Whether it has the shape that words can be taken from; what is damaged lies as it is. */
const isPlan = (value: unknown): value is PlanAtRest =>
  typeof value === 'object' && value !== null && Array.isArray((value as { blocks?: unknown }).blocks);

/** The sealed text within a value as it lies; undefined where it is plain. */
function toldIn(value: unknown, how: How | undefined): string | undefined {
  const inside = how === 'programme' ? (value as { plan?: unknown } | null)?.plan : value;
  const told = how === 'plan' || how === 'programme' ? (inside as PlanAtRest | undefined | null)?.told : inside;
  return isSealed(told) ? told : undefined;
}

const lying = (text: string, how: How | undefined): unknown =>
  how === 'json' || how === 'plan' || how === 'programme' ? parsed(text) : text;

/** The sealed text in a column; undefined where it lies plain. */
export const sealedIn = (text: string, table: string, column: string): string | undefined => {
  const how = howOf(table, column);
  return toldIn(lying(text, how), how);
};

/** What a column holds, as it is put into it. */
export function sealedFor(sealer: Sealer, plain: string, table: string, column: string, row: Row): string {
  const seal = (text: string) => sealer.seal(text, `${table}.${column}`, rowIn(table, row));
  const atRest = (plan: unknown) =>
    isPlan(plan) ? { ...withoutWords(plan), name: '', told: seal(JSON.stringify(wordsOf(plan))) } : plan;
  switch (howOf(table, column)) {
    case 'text':
    case 'number':
      return seal(plain);
    // JSON keeps its quotes, so that the column is JSON still.
    case 'json':
      return JSON.stringify(seal(plain));
    case 'plan':
      return isPlan(parsed(plain)) ? JSON.stringify(atRest(parsed(plain))) : plain;
    case 'programme': {
      const programme = parsed(plain) as Programme | undefined;
      return isPlan(programme?.plan) ? JSON.stringify({ ...programme, plan: atRest(programme.plan) }) : plain;
    }
    default:
      return plain;
  }
}

/** A value that was read, in plain: as it is where it lies plain, undefined where it does not open. */
export function openedValue(sealer: Sealer, value: unknown, table: string, column: string, row: Row): unknown {
  const how = howOf(table, column);
  const told = toldIn(value, how);
  if (told === undefined) return value;
  const plain = sealer.open(told, `${table}.${column}`, rowIn(table, row));
  if (plain === undefined) return undefined;
  switch (how) {
    case 'json':
      return parsed(plain);
    case 'number':
      return Number(plain);
    case 'plan':
      return withTold(value as PlanAtRest, plain);
    case 'programme': {
      const plan = withTold((value as Programme).plan, plain);
      return plan && { ...(value as Programme), plan };
    }
    default:
      return plain;
  }
}

function withTold({ told: _, ...bare }: PlanAtRest, words: string): Plan | undefined {
  try {
    return withWords(bare, JSON.parse(words) as PlanWords);
  } catch {
    return undefined;
  }
}

/** The same for the text of a column. */
export function openedFrom(sealer: Sealer, text: string, table: string, column: string, row: Row): unknown {
  return openedValue(sealer, lying(text, howOf(table, column)), table, column, row);
}

/** What a column would hold if it lay plain; undefined where it does not open. */
export function plainFrom(sealer: Sealer, text: string, table: string, column: string, row: Row): string | undefined {
  if (sealedIn(text, table, column) === undefined) return text;
  const value = openedFrom(sealer, text, table, column, row);
  return value === undefined || typeof value === 'string' ? value : JSON.stringify(value);
}

/** What is left of a plan, or of a programme, whose words are lost with their key. */
export function withoutTold(text: string, table: string, column: string): string {
  const how = howOf(table, column);
  const bare = ({ told: _, ...plan }: PlanAtRest, name: string): Plan => ({ ...plan, name });
  const value = lying(text, how);
  if (how === 'plan') return JSON.stringify(bare(value as PlanAtRest, LOST_NAME));
  const programme = value as Programme;
  return JSON.stringify({ ...programme, plan: bare(programme.plan, LOST_NAME) });
}

/** What a plan is called whose name is lost. */
export const LOST_NAME = 'A plan whose words are lost';
