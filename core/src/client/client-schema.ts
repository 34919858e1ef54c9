/** A client, as requests, files and the store hold them: who they are, their limits, their kit and what they agreed to. */
import { kitSchema } from '../movement/kit-schema.js';
import { limitOnDaySchema, limitSchema } from '../movement/limit-schema.js';
import { LOOKS } from '../movement/looks.js';
import { SPACES } from '../movement/vocabulary.js';
import { called, day, instant, line, mail, number, uuid, whole, words } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { DAY_KINDS } from './client.js';
import { clearedSchema } from './conditions.js';
import { easeSchema } from './ease.js';
import { painOverSchema } from './open-pains.js';
import { benchmarkSchema, readinessCheckSchema, todayCheckSchema } from './screening.js';

export const clientSchema = z.strictObject({
  id: uuid,
  version: z.int().min(1),
  name: called(80),
  about: line(200),
  goal: line(200),
  /** Private: only ever sent with this one client, never in a list. */
  healthNote: words(2000),
  /** Day on which the client agreed to be touched for correction (YYYY-MM-DD). */
  touchConsentOn: day.nullable(),
  /** Day on which the client agreed to be filmed (YYYY-MM-DD). */
  filmConsentOn: day.nullable(),
  /** Where sheets are sent; empty for nowhere. */
  email: z.union([z.literal(''), mail], 'must be an e-mail address such as mail@example.org'),
  /** The trainer's notes that are not about health. */
  note: words(2000),
  /** Whole years of training so far; null when not noted. */
  trainingYears: whole(0, 90).nullable(),
  /** Kilograms; null when not noted. */
  bodyKg: number(20, 400).nullable(),
  /** How the day is mostly spent; null when not noted. */
  dayMostly: z.enum(DAY_KINDS).nullable(),
  /** Who shows the movements to them; null for the studio's choice. */
  looks: z.enum(LOOKS).nullable(),
  /** The unit in which weights are read. */
  unit: z.enum(['kg', 'lb']),
  /** Questions asked before the first session; null until they were. */
  readiness: readinessCheckSchema.nullable(),
  /** The latest check before a session; it holds for its own day only. */
  today: todayCheckSchema.nullable(),
  benchmarks: z.array(benchmarkSchema).max(500, 'has at most 500 values'),
  limits: z.array(limitSchema).max(120, 'has at most 120 limits'),
  /** Conditions that ended, and by whose word. */
  cleared: z.array(clearedSchema).max(100, 'has at most 100 conditions'),
  /** Pains of sessions that are over, and by whose word. */
  painsOver: z.array(painOverSchema).max(500, 'has at most 500 pains'),
  /** What there is at home, and the room. */
  kit: kitSchema,
  homeSpace: z.enum(SPACES),
  /** Where this client's schools differ from the studio's: house rule → option. */
  houseRules: z.record(z.string(), z.string()),
});
export interface Client extends z.infer<typeof clientSchema> {}

/** Somebody new: what is left out is blank. */
export const newClientSchema = clientSchema.omit({ id: true, version: true }).partial().required({ name: true });
export type NewClient = z.infer<typeof newClientSchema>;

/** A change, and the version that it was made from: what is left out stays as it is. */
export const clientChangeSchema = newClientSchema.partial().extend({ version: clientSchema.shape.version });
export type ClientChange = z.infer<typeof clientChangeSchema>;

/** A client in a list, with when they come. */
export const clientSummarySchema = clientSchema.pick({ id: true, name: true, about: true, goal: true }).extend({
  /** How many. */
  limits: z.int().min(0),
  /** Whether the questions before starting were asked; null for who may not know. */
  screened: z.boolean().nullable(),
  /** Day of the last check before a session; null where there was none, and for who may not know. */
  checkedOn: day.nullable(),
  /** When their last session began. */
  last: instant.nullable(),
  /** When those of the last weeks began, the earliest first. */
  came: z.array(instant),
  /** The next plan that is theirs. */
  next: z.strictObject({ planId: uuid, startsAt: instant }).nullable(),
});
export type ClientSummary = z.infer<typeof clientSummarySchema>;

/** A client as they are on one day: all that a session and a plan need to know, and nothing else. */
export const clientOnDaySchema = clientSchema
  .pick({ id: true, name: true, unit: true, trainingYears: true, dayMostly: true, looks: true, homeSpace: true })
  .extend({
    /** The day; left out by what was kept before it was. */
    day: day.optional(),
    /** Every limit that holds on that day, what its check closes included. */
    limits: z.array(limitOnDaySchema).readonly(),
    /** Why nothing goes up on that day; null when it may. */
    ease: easeSchema.nullable(),
    /** At home. */
    kit: kitSchema.readonly(),
    houseRules: clientSchema.shape.houseRules,
    mayTouch: z.boolean(),
    mayFilm: z.boolean(),
    /** What was measured and noted by hand. */
    benchmarks: z.array(benchmarkSchema).readonly(),
  });
export type ClientOnDay = z.infer<typeof clientOnDaySchema>;
