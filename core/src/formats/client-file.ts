/** One client's data as a file: everything that is kept about them, to hand over or to bring back. */
import { z } from '../movement/zod.js';
import { checkScreening } from '../coaching/screening.js';
import type { Checked } from '../movement/check.js';
import { problemsOf, type Problem } from '../movement/problem.js';
import { planSchema, type Plan } from '../planning/plan.js';
import { eventSchema, type SessionEvent } from '../session/events.js';
import type { Programme } from '../session/run.js';
import type { Client } from './answers.js';

/** What a client has before anybody said anything. */
export const BLANK_CLIENT: Omit<Client, 'id' | 'version' | 'name'> = {
  about: '',
  goal: '',
  healthNote: '',
  touchConsentOn: null,
  filmConsentOn: null,
  email: '',
  note: '',
  trainingYears: null,
  bodyKg: null,
  unit: 'kg',
  readiness: null,
  today: null,
  benchmarks: [],
  limits: [],
  kit: [],
  houseRules: {},
};

export const CLIENT_FILE_FORMAT = 'waxwing-client';

export interface ClientFile {
  format: typeof CLIENT_FILE_FORMAT;
  formatVersion: 1;
  client: Omit<Client, 'version'>;
  /** Their part of every session. */
  sessions: {
    id: string;
    startedAt: string;
    finishedAt: string | null;
    /** What it began with, as far as it was theirs; missing in older files. */
    programme?: Programme | null | undefined;
    events: SessionEvent[];
  }[];
  /** Their part of every plan. */
  plans: Plan[];
}

const programmeSchema = z.strictObject({
  planId: z.uuid('must be a UUID'),
  plan: planSchema,
  rotations: z.record(z.uuid(), z.array(z.array(z.int().min(0).nullable()).max(4)).max(200)),
});

const fileSchema = z.strictObject({
  format: z.literal(CLIENT_FILE_FORMAT, `must be "${CLIENT_FILE_FORMAT}"`),
  formatVersion: z.literal(1, 'is of a version that this Waxwing does not know'),
  client: z.looseObject({ id: z.uuid('must be a UUID'), name: z.string().min(1, 'must not be empty').max(80) }),
  sessions: z
    .array(
      z.strictObject({
        id: z.uuid('must be a UUID'),
        startedAt: z.iso.datetime('must be a UTC time'),
        finishedAt: z.iso.datetime('must be a UTC time').nullable(),
        programme: programmeSchema.nullish(),
        events: z.array(eventSchema).max(20_000),
      }),
    )
    .max(5_000),
  plans: z.array(planSchema).max(2_000),
});

const KNOWN = new Set(['id', 'name', ...Object.keys(BLANK_CLIENT)]);

/** Checks a whole file before anything of it is taken. The client's plain fields are checked again as any client is. */
export function checkClientFile(input: unknown): Checked<ClientFile> {
  const result = fileSchema.safeParse(input, { reportInput: true });
  if (!result.success) return { ok: false, problems: problemsOf(result.error) };
  const file = result.data;
  const problems: Problem[] = Object.keys(file.client)
    .filter((key) => !KNOWN.has(key))
    .map((key) => ({ path: `client.${key}`, message: 'is not a known field' }));
  const parts = checkScreening(file.client);
  if (!parts.ok) problems.push(...parts.problems.map(({ path, message }) => ({ path: `client.${path}`, message })));
  file.sessions.forEach(({ id, events }, s) =>
    events.forEach((event, e) => {
      if (event.sessionId !== id)
        problems.push({ path: `sessions[${s}].events[${e}].sessionId`, message: 'belongs to another session' });
      if (event.clientId !== file.client.id)
        problems.push({ path: `sessions[${s}].events[${e}].clientId`, message: 'belongs to another client' });
    }),
  );
  const alone = ({ clientIds }: Plan, path: string): void => {
    if (clientIds.length !== 1 || clientIds[0] !== file.client.id)
      problems.push({ path: `${path}.clientIds`, message: 'must be this client alone' });
  };
  file.plans.forEach((plan, p) => alone(plan, `plans[${p}]`));
  file.sessions.forEach(({ programme }, s) => programme && alone(programme.plan, `sessions[${s}].programme.plan`));
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: file as ClientFile };
}

/** A plan without everybody else: their lanes go, and lines and blocks that held nothing else. */
export const planOf = (plan: Plan, clientId: string): Plan => planWith(plan, [clientId]);

/** The part of a plan that is for some of its clients. */
export const planWith = (plan: Plan, clientIds: readonly string[]): Plan => only(plan, (id) => clientIds.includes(id));

/** A plan without one client; null when nobody is left in it. */
export function planWithout(plan: Plan, clientId: string): Plan | null {
  const rest = only(plan, (id) => id !== clientId);
  return rest.clientIds.length > 0 ? rest : null;
}

const only = (plan: Plan, keep: (clientId: string) => boolean): Plan => ({
  ...plan,
  clientIds: plan.clientIds.filter(keep),
  blocks: plan.blocks.map((block) => ({
    ...block,
    items: block.items
      .map((item) => ({ ...item, lanes: item.lanes.filter((lane) => keep(lane.clientId)) }))
      .filter(({ lanes }) => lanes.length > 0),
  })),
});
