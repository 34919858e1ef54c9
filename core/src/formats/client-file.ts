/** One client's data as a file: everything that is kept about them, to hand over or to bring back. */
import { BLANK_CLIENT, type Client } from '../client/client.js';
import { checkScreening } from '../client/screening.js';
import { MOST_STILLS, type Still, stillSchema } from '../client/still.js';
import { type Checked, instant, uuid } from '../schema/atoms.js';
import { type Problem, problemsOf } from '../schema/problem.js';
import { z } from '../schema/zod.js';
import { planSchema, type Plan } from '../planning/plan.js';
import { eventSchema, type SessionEvent } from '../session/events.js';
import { programmeSchema } from '../session/programme.js';
import type { Programme } from '../session/run.js';

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
  /** Pictures kept of their clips; missing in older files. */
  stills?: Still[] | undefined;
}

const fileSchema = z.strictObject({
  format: z.literal(CLIENT_FILE_FORMAT, `must be "${CLIENT_FILE_FORMAT}"`),
  formatVersion: z.literal(1, 'is of a version that this Waxwing does not know'),
  client: z.looseObject({ id: uuid, name: z.string().min(1, 'must not be empty').max(80) }),
  sessions: z
    .array(
      z.strictObject({
        id: uuid,
        startedAt: instant,
        finishedAt: instant.nullable(),
        programme: programmeSchema.nullish(),
        events: z.array(eventSchema).max(20_000),
      }),
    )
    .max(5_000),
  plans: z.array(planSchema).max(2_000),
  stills: z.array(stillSchema).max(MOST_STILLS).optional(),
});

const KNOWN = new Set(['id', 'name', ...Object.keys(BLANK_CLIENT)]);

/** Checks a whole file before anything of it is taken. The client's plain fields are checked again as any client is. */
export function checkClientFile(input: unknown): Checked<ClientFile> {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return { ok: false, problems: [{ path: 'file', message: "is not a client's file: it is not a JSON object" }] };
  const result = fileSchema.safeParse(input, { reportInput: true });
  if (!result.success) return { ok: false, problems: problemsOf(result.error) };
  const file = result.data;
  const problems: Problem[] = Object.keys(file.client)
    .filter((key) => !KNOWN.has(key))
    .map((key) => ({ path: `client.${key}`, message: 'is not a known field' }));
  const parts = checkScreening(file.client);
  if (!parts.ok) problems.push(...parts.problems.map(({ path, message }) => ({ path: `client.${path}`, message })));
  const sessionIds = new Set<string>();
  const eventIds = new Set<string>();
  file.sessions.forEach(({ id, events }, s) => {
    if (sessionIds.has(id)) problems.push({ path: `sessions[${s}].id`, message: 'is in the file twice' });
    sessionIds.add(id);
    events.forEach((event, e) => {
      if (eventIds.has(event.id))
        problems.push({ path: `sessions[${s}].events[${e}].id`, message: 'is in the file twice' });
      eventIds.add(event.id);
      if (event.sessionId !== id)
        problems.push({ path: `sessions[${s}].events[${e}].sessionId`, message: 'belongs to another session' });
      if (event.clientId !== file.client.id)
        problems.push({ path: `sessions[${s}].events[${e}].clientId`, message: 'belongs to another client' });
    });
  });
  const alone = ({ clientIds }: Plan, path: string): void => {
    if (clientIds.length !== 1 || clientIds[0] !== file.client.id)
      problems.push({ path: `${path}.clientIds`, message: 'must be this client alone' });
  };
  file.plans.forEach((plan, p) => alone(plan, `plans[${p}]`));
  file.sessions.forEach(({ programme }, s) => programme && alone(programme.plan, `sessions[${s}].programme.plan`));
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: file as ClientFile };
}
