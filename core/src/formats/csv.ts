/**
 * The list of movements as CSV, for a spreadsheet: one row a movement, lists joined by ` + `.
 * Coming back, a row changes the columns of a movement that exists, or makes a new one that still needs its cues and faults.
 */
import Papa from 'papaparse';

import { checkMovement } from '../movement/check.js';
import type { KitNeed, KitOption, Movement } from '../movement/schema.js';
import type { Problem } from '../schema/problem.js';
import { type Pack, PackError, packOf } from './pack.js';

export const CSV_COLUMNS = [
  'id',
  'name',
  'aliases',
  'families',
  'pattern',
  'role',
  'position',
  'sides',
  'planes',
  'prime muscles',
  'helping muscles',
  'kit',
  'space',
  'counted in',
  'tempo',
] as const;
type Column = (typeof CSV_COLUMNS)[number];
type Row = Record<Column, string>;

const LIST = ' + ';
const join = (values: readonly string[]): string => values.join(LIST);
const split = (cell: string): string[] =>
  cell
    .split('+')
    .map((value) => value.trim())
    .filter(Boolean);

const NOTHING = 'nothing';

const needsCell = (needs: readonly KitNeed[]): string =>
  needs.length === 0 ? NOTHING : join(needs.map(({ item, count }) => (count > 1 ? `${count} ${item}` : item)));

/** `2 dumbbell + bench / bell`: options by slashes, what an option needs by plus signs. */
const kitCell = (kit: readonly KitOption[]): string => kit.map(({ needs }) => needsCell(needs)).join(' / ');

/** Options as they are named; what a table does not show of one that was here stays. */
function kitFrom(cell: string, here: readonly KitOption[]): unknown[] {
  const left = [...here];
  return cell
    .split('/')
    .map(split)
    .filter((option) => option.length > 0)
    .map((option) => {
      const at = left.findIndex(({ needs }) => needsCell(needs) === join(option));
      return at < 0 ? { needs: option.filter((need) => need !== NOTHING).map(needFrom) } : left.splice(at, 1)[0];
    });
}

function needFrom(need: string): { item: string; count: number } {
  const counted = /^(\d+)\s+(.+)$/.exec(need);
  return counted ? { item: counted[2] ?? '', count: Number(counted[1]) } : { item: need, count: 1 };
}

const rowOf = (movement: Movement): Row => ({
  id: movement.id,
  name: movement.name,
  aliases: join(movement.aliases),
  families: join(movement.families),
  pattern: movement.pattern,
  role: movement.role,
  position: movement.position,
  sides: movement.sides,
  planes: join(movement.planes),
  'prime muscles': join(movement.muscles.prime),
  'helping muscles': join(movement.muscles.assist),
  kit: kitCell(movement.kit),
  space: movement.space,
  'counted in': movement.dose.mode,
  tempo: movement.dose.tempo,
});

/** A spreadsheet runs what begins like a formula; an apostrophe before it keeps it text. */
const FORMULA = /^[=+\-@\t\r]/;

export const csvOf = (movements: readonly Movement[]): string =>
  Papa.unparse(
    {
      fields: [...CSV_COLUMNS],
      data: movements.map((movement) => {
        const row = rowOf(movement);
        return CSV_COLUMNS.map((column) => (FORMULA.test(row[column]) ? `'${row[column]}` : row[column]));
      }),
    },
    { newline: '\n' },
  );

/** What a row of a movement that is not here yet begins with. */
const BARE = {
  demands: {},
  dose: { mode: 'reps', tempo: '2-0-2-0', windows: { learn: { low: 8, high: 10, sets: [2, 3], rest: 60 } } },
  breath: 'Breathe out on the effort.',
  phases: ['set-up', 'lower', 'rise', 'finish'],
  cues: [],
  faults: [],
  links: [],
  cautions: [],
};

/**
 * Reads a list of movements into a pack.
 * @param find the movement that a row changes
 * @throws PackError naming line and column
 */
export function readCsv(text: string, find: (id: string) => Movement | undefined): Pack {
  const { data, errors, meta } = Papa.parse<Row>(text.replace(/^\uFEFF/, ''), { header: true, skipEmptyLines: true });
  const header = meta.fields ?? [];
  const missing = CSV_COLUMNS.filter((column) => !header.includes(column));
  const unknown = header.filter((column) => !(CSV_COLUMNS as readonly string[]).includes(column));
  if (missing.length + unknown.length > 0)
    throw new PackError([
      ...missing.map((column) => ({ path: 'line 1', message: `has no column "${column}"` })),
      ...unknown.map((column) => ({ path: 'line 1', message: `has an unknown column "${column}"` })),
    ]);
  if (errors.length > 0)
    throw new PackError(errors.map((error) => ({ path: `line ${(error.row ?? 0) + 2}`, message: error.message })));

  const problems: Problem[] = [];
  const movements: Movement[] = [];
  const lines = new Map<string, number>();
  data.forEach((row, i) => {
    const line = `line ${i + 2}`;
    const before = lines.get(row.id);
    if (before !== undefined) problems.push({ path: line, message: `id "${row.id}" is also in line ${before}` });
    lines.set(row.id, i + 2);
    const checked = checkMovement(withRow(find(row.id), row));
    if (checked.ok) movements.push(checked.value);
    else problems.push(...checked.problems.map(({ path, message }) => ({ path: `${line}, ${path}`, message })));
  });
  if (problems.length > 0) throw new PackError(problems);
  return packOf(movements);
}

function withRow(here: Movement | undefined, row: Row): unknown {
  const base = here ?? BARE;
  const text = (column: Column) => row[column].replace(/^'(?=[=+\-@\t\r])/, '').trim();
  return {
    ...base,
    id: text('id'),
    name: text('name'),
    aliases: split(text('aliases')),
    families: split(text('families')),
    pattern: text('pattern'),
    role: text('role'),
    position: text('position'),
    sides: text('sides'),
    planes: split(text('planes')),
    muscles: { prime: split(text('prime muscles')), assist: split(text('helping muscles')) },
    kit: kitFrom(text('kit'), here?.kit ?? []),
    space: text('space'),
    dose: { ...base.dose, mode: text('counted in'), tempo: text('tempo') },
  };
}
