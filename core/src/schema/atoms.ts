/** The small shapes that all schemas share: ids, words for people, days, times, tempo. */
import { type Problem, problemsOf } from './problem.js';
import { z } from './zod.js';

/** What a check answers: the value, or everything that is wrong with it. */
export type Checked<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** What a document is checked by. */
export type Schema<T> = z.ZodType<T>;

/** Checks input of unknown shape by a schema. */
export function checkedBy<T>(schema: Schema<T>, input: unknown): Checked<T> {
  const result = schema.safeParse(input, { reportInput: true });
  return result.success ? { ok: true, value: result.data } : { ok: false, problems: problemsOf(result.error) };
}

export const SLUG = '[a-z0-9]+(?:-[a-z0-9]+)*';

export const slug = z
  .string()
  .max(60, 'must be at most 60 characters')
  .regex(new RegExp(`^${SLUG}$`), 'must be lower-case words joined by hyphens');

export const uuid = z.uuid('must be a UUID');

/** A whole number within bounds, both included. */
export const whole = (low: number, high: number) =>
  z
    .int(`must be a whole number from ${low} to ${high}`)
    .min(low, `must be ${low} to ${high}`)
    .max(high, `must be ${low} to ${high}`);

/** Characters that nobody types and no screen shows, and those that break a line where none is wanted. */
const UNSEEN = /[\p{Cc}\p{Zl}\p{Zp}]/u;
const UNSEEN_IN_LINES = /[^\P{Cc}\n\r\t]/u;
/** What leaves a mark on paper: not spaces, joiners or marks of direction. */
const SEEN = /[^\p{C}\p{Z}\p{M}\u115f\u1160\u2800\u3164\uffa0]/u;

/** Why some words cannot be kept as one line for people; null when they can. */
export function wrongInLine(value: string): string | null {
  return UNSEEN.test(value) ? 'must not hold control characters' : null;
}

/** The same for words that may run over several lines. */
export function wrongInLines(value: string): string | null {
  return UNSEEN_IN_LINES.test(value) ? 'must not hold control characters' : null;
}

/** Whether anything of some words can be seen. */
export const isVisible = (value: string): boolean => SEEN.test(value);

/** Words for people, that may be empty. */
export const words = (max: number) =>
  z
    .string()
    .max(max, `must be at most ${max} characters`)
    .refine((value) => wrongInLines(value) === null, 'must not hold control characters');

/** One line of words for people, that may be empty. */
export const line = (max: number) =>
  z
    .string()
    .max(max, `must be at most ${max} characters`)
    .refine((value) => wrongInLine(value) === null, 'must not hold control characters');

/** One line of which something can be seen: what somebody or something is called. */
export const called = (max: number) => line(max).refine(isVisible, 'must not be empty');

/** A number within bounds, both included. */
export const number = (low: number, high: number) =>
  z
    .number(`must be a number from ${low} to ${high}`)
    .min(low, `must be ${low} to ${high}`)
    .max(high, `must be ${low} to ${high}`);

/** Where a message can be sent: nothing in it that a list of addresses would be read from. */
const MAIL = /^[^\s@"(),:;<>[\]\\]{1,64}@[^\s@"(),:;<>[\]\\.]+(?:\.[^\s@"(),:;<>[\]\\.]+)+$/u;

/** An e-mail address. */
export const mail = z
  .string()
  .max(120, 'must be at most 120 characters')
  .regex(MAIL, 'must be an e-mail address such as mail@example.org');

/** Text for people: something to be seen in it, never longer than `max` characters. */
export const text = (max: number) =>
  words(max)
    .refine(isVisible, 'must not be empty')
    .refine((value) => !/<[a-z!/?]/i.test(value), 'must be plain text, without tags such as <b>');

/** Days and times outside of these years are slips of the finger. */
const FIRST_YEAR = 1900;
const LAST_YEAR = 2199;

const within = (value: string): boolean => {
  const year = Number(value.slice(0, 4));
  return year >= FIRST_YEAR && year <= LAST_YEAR;
};

/** A day that the calendar has (YYYY-MM-DD). */
export const day = z.iso
  .date({ error: 'must be a day such as 2030-01-31', abort: true })
  .refine(within, `must lie between the years ${FIRST_YEAR} and ${LAST_YEAR}`);

/** Whether a text is a day that the calendar has. */
export const isDay = (value: unknown): boolean => day.safeParse(value).success;

/** A UTC time (ISO 8601). */
export const instant = z.iso
  .datetime({ error: 'must be a UTC time such as 2030-01-31T17:05:00.000Z', abort: true })
  .refine(within, `must lie between the years ${FIRST_YEAR} and ${LAST_YEAR}`);

/** Seconds of the slowest rep. */
const LONGEST_REP = 60;

/** Lower-pause-rise-pause in seconds. */
export const tempoSchema = z
  .string()
  .regex(/^\d{1,2}-\d{1,2}-\d{1,2}-\d{1,2}$/, {
    error: 'must be lower-pause-rise-pause in seconds, such as 3-1-1-0',
    abort: true,
  })
  .refine((tempo) => tempo.split('-').reduce((sum, seconds) => sum + Number(seconds), 0) <= LONGEST_REP, {
    error: `must take at most ${LONGEST_REP} seconds a rep`,
  });
