/**
 * Figures as their files have them, put together: `like` takes over another figure's fields but those of its own movement, `null` leaves a field out,
 * and a fault may be the name of one that many figures share, by itself or with changes.
 */
import type { FileProblem } from './load.js';

type Fields = Record<string, unknown>;

/** One written figure and the file that it stands in. */
export interface Written {
  file: string;
  fields: unknown;
  /** The figure whose fields it takes over. */
  like?: string;
}

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What a figure says of its own movement: another one that looks alike has its own. */
const OF_ITS_MOVEMENT: ReadonlySet<string> = new Set(['faults', 'notAsked']);

/** What a figure has instead of what it is `like`: a rep is no round, and the other way about. */
const INSTEAD: Readonly<Record<string, readonly string[]>> = { end: ['cycle'], cycle: ['end', 'via', 'back'] };

/** Puts figures together; what is not there is a problem by file and path. */
export function putTogether(
  written: ReadonlyMap<string, Written>,
  shared: Readonly<Fields>,
): { figures: Map<string, Written>; problems: FileProblem[] } {
  const problems: FileProblem[] = [];
  const done = new Map<string, Fields>();

  function fieldsOf(id: string, asked: readonly string[]): Fields | undefined {
    const known = done.get(id);
    if (known) return known;
    const one = written.get(id);
    if (!one || !isFields(one.fields)) return undefined;
    const { like, ...own } = one.fields;
    let under: Fields = {};
    if (like !== undefined) {
      const parent = typeof like === 'string' && !asked.includes(like) ? fieldsOf(like, [...asked, id]) : undefined;
      if (!parent) problems.push({ file: one.file, path: `${id}.like`, message: `no figure "${String(like)}"` });
      else under = Object.fromEntries(Object.entries(parent).filter(([name]) => !OF_ITS_MOVEMENT.has(name)));
    }
    const replaced = new Set(Object.keys(own).flatMap((name) => INSTEAD[name] ?? []));
    const kept = Object.fromEntries(Object.entries(under).filter(([name]) => !replaced.has(name)));
    const all = Object.fromEntries(Object.entries({ ...kept, ...own }).filter(([, value]) => value !== null));
    if (isFields(all.faults)) all.faults = Object.fromEntries(Object.entries(all.faults).map(faultOf(id, one.file)));
    done.set(id, all);
    return all;
  }

  const faultOf =
    (id: string, file: string) =>
    ([fault, value]: [string, unknown]): [string, unknown] => {
      const as = typeof value === 'string' ? value : isFields(value) ? value.as : undefined;
      if (as === undefined) return [fault, value];
      const base = typeof as === 'string' ? shared[as] : undefined;
      if (!isFields(base))
        problems.push({ file, path: `${id}.faults.${fault}`, message: `no shared fault "${String(as)}"` });
      const { as: _, ...change } = isFields(value) ? value : {};
      return [fault, { ...(isFields(base) ? base : {}), ...change }];
    };

  const figures = new Map(
    [...written].map(([id, { file, fields }]): [string, Written] => {
      const like = isFields(fields) && typeof fields.like === 'string' ? { like: fields.like } : {};
      return [id, { file, fields: fieldsOf(id, []) ?? fields, ...like }];
    }),
  );
  return { figures, problems };
}
