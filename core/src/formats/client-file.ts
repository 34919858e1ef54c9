/** One client's data as a file: everything that is kept about them, to hand over or to bring back. */
import { BLANK_CLIENT } from '../client/client.js';
import { clientSchema, newClientSchema } from '../client/client-schema.js';
import { limitsToday } from '../client/limits-today.js';
import { MOST_STILLS, stillSchema } from '../client/still.js';
import { type Plan, planSchema } from '../planning/plan.js';
import { type Checked, instant, uuid } from '../schema/atoms.js';
import { type Problem, problemsOf } from '../schema/problem.js';
import { z } from '../schema/zod.js';
import { eventSchema } from '../session/events.js';
import { programmeSchema } from '../session/programme.js';

export const CLIENT_FILE_FORMAT = 'waxwing-client';

export const CLIENT_FILE_VERSION = 2;

export const clientFileSchema = z.strictObject({
  format: z.literal(CLIENT_FILE_FORMAT, `must be "${CLIENT_FILE_FORMAT}"`),
  formatVersion: z.literal(CLIENT_FILE_VERSION, 'is of a version that this Waxwing does not know'),
  client: clientSchema.omit({ version: true }),
  /** Their part of every session. */
  sessions: z
    .array(
      z.strictObject({
        id: uuid,
        startedAt: instant,
        finishedAt: instant.nullable(),
        /** What it began with, as far as it was theirs; missing in older files. */
        programme: programmeSchema.nullish(),
        events: z.array(eventSchema).max(20_000),
      }),
    )
    .max(5_000),
  /** Their part of every plan. */
  plans: z.array(planSchema).max(2_000),
  /** Pictures kept of their clips; missing in older files. */
  stills: z.array(stillSchema).max(MOST_STILLS).optional(),
});
export interface ClientFile extends z.infer<typeof clientFileSchema> {}

/** Older files know less of a client: what is missing is blank. */
const readSchema = clientFileSchema.extend({
  formatVersion: z.union(
    [z.literal(1), z.literal(CLIENT_FILE_VERSION)],
    'is of a version that this Waxwing does not know',
  ),
  client: newClientSchema.extend({ id: uuid }),
});

/** A client as a file holds them, with today's limits. */
function upToDate({ formatVersion, client }: z.infer<typeof readSchema>): ClientFile['client'] {
  const whole = { ...BLANK_CLIENT, ...client };
  return formatVersion === CLIENT_FILE_VERSION ? whole : { ...whole, limits: limitsToday(whole.limits) };
}

/** Checks a whole file before anything of it is taken. */
export function checkClientFile(input: unknown): Checked<ClientFile> {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return { ok: false, problems: [{ path: 'file', message: "is not a client's file: it is not a JSON object" }] };
  const result = readSchema.safeParse(input, { reportInput: true });
  if (!result.success) return { ok: false, problems: problemsOf(result.error) };
  const file = result.data;
  const problems: Problem[] = [];
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
  return problems.length > 0
    ? { ok: false, problems }
    : { ok: true, value: { ...file, formatVersion: CLIENT_FILE_VERSION, client: upToDate(file) } };
}
