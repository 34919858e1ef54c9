/**
 * Every operation of the API: what it is asked with and what it answers. The server's description (OpenAPI) and the page's calls are made
 * from this table, and the tests hold every answer against it.
 */
import { figureSchema, posesSchema } from '../body/figure-schema.js';
import {
  type Client,
  clientChangeSchema,
  clientOnDaySchema,
  clientSchema,
  clientSummarySchema,
  newClientSchema,
} from '../client/client-schema.js';
import { conditionSchema } from '../client/conditions.js';
import { keepingSchema } from '../client/keeping.js';
import { stillSchema } from '../client/still.js';
import { studioChangeSchema, studioSchema } from '../client/studio-schema.js';
import { type ClientRecord, clientRecordSchema } from '../coaching/evidence-schema.js';
import {
  accountSchema,
  auditEntrySchema,
  deviceSchema,
  doorSchema,
  keepsSchema,
  leftSchema,
  pairingSchema,
  takenSchema,
} from '../door/door-schema.js';
import { ROLES } from '../door/roles.js';
import { type ClientFile, clientFileSchema } from '../formats/client-file.js';
import { outboxMessageSchema } from '../formats/message.js';
import { importPreviewSchema, type Pack, packSchema } from '../formats/pack.js';
import { setRowSchema } from '../formats/set-row.js';
import { sheetSchema } from '../formats/sheet-schema.js';
import { healthSchema } from '../ladder/health-schema.js';
import { type MovementPage, movementPageSchema } from '../ladder/page.js';
import { pictureSchema } from '../movement/attachment.js';
import { demandLevelSchema } from '../movement/demand-levels.js';
import { faultKindSchema } from '../movement/fault-kinds.js';
import { houseRuleSchema } from '../movement/house-rules.js';
import {
  type Movement,
  type MovementChange,
  movementChangeSchema,
  type MovementInput,
  movementSchema,
} from '../movement/schema.js';
import { type MovementList, movementListSchema, searchTextSchema } from '../movement/summary-schema.js';
import { type MovementVersion, movementVersionSchema } from '../movement/version.js';
import { type Plan, type PlanInput, planSchema } from '../planning/plan.js';
import { feedSchema, planSummarySchema, type StoredPlan, storedPlanSchema } from '../planning/stored.js';
import { instant, uuid } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { programmeSchema } from '../session/programme.js';
import type { Programme } from '../session/run.js';
import {
  type LaterEvents,
  laterEventsSchema,
  listedSessionSchema,
  type SentEvents,
  sentEventsSchema,
  type SessionView,
  sessionViewSchema,
} from '../session/view.js';

export interface Operation {
  /** Names of what may stand in the query. */
  query?: readonly string[];
  /** The body as JSON, or `file` for bytes as they are. */
  body?: z.ZodType | 'file';
  /** The answer as JSON, or what kind of content it is; null for an answer without one. */
  answer: z.ZodType | { type: string } | null;
}

const items = <T extends z.ZodType>(schema: T) => z.strictObject({ items: z.array(schema) });
const page = <T extends z.ZodType>(schema: T) =>
  z.strictObject({ items: z.array(schema), nextCursor: z.string().nullable() });

const PAGED = ['cursor', 'limit'] as const;
const version = z.int().min(1);
const code = z.strictObject({ code: z.string() });
const accountIds = z.strictObject({ accountIds: z.array(uuid) });
const open = z.strictObject({ open: z.boolean() });
const csv = { type: 'text/csv' };
const calendar = { type: 'text/calendar' };
const markdown = { type: 'text/markdown' };
const svg = { type: 'image/svg+xml' };

const movementPage: z.ZodType<MovementPage> = movementPageSchema;
const movementVersion: z.ZodType<MovementVersion> = movementVersionSchema;
const movementList: z.ZodType<MovementList> = movementListSchema;
const storedPlan: z.ZodType<StoredPlan> = storedPlanSchema;
const sessionView: z.ZodType<SessionView> = sessionViewSchema;
const laterEvents: z.ZodType<LaterEvents> = laterEventsSchema;
const clientFile: z.ZodType<ClientFile> = clientFileSchema;
const clientRecord: z.ZodType<ClientRecord> = clientRecordSchema;
const client: z.ZodType<Client> = clientSchema;
const pack: z.ZodType<Pack> = packSchema;
const sentEvents: z.ZodType<SentEvents> = sentEventsSchema;
const movementChange: z.ZodType<unknown, MovementChange> = movementChangeSchema;
const movement: z.ZodType<Movement, MovementInput> = movementSchema;
const plan: z.ZodType<Plan, PlanInput> = planSchema;
const programme: z.ZodType<Programme> = programmeSchema;

export const OPERATIONS = {
  'GET /health': { answer: z.strictObject({ ok: z.literal(true) }) },

  'GET /door': { answer: doorSchema },
  'POST /door/begin': {
    body: z.strictObject({ name: z.string(), passphrase: z.string().nullish(), open: z.boolean() }),
    answer: z.strictObject({ code: z.string().nullable() }),
  },
  'PATCH /door': { body: open, answer: open },
  'GET /door/keeps': { answer: keepsSchema },
  'PATCH /door/keeps': { body: keepsSchema, answer: keepsSchema },
  'POST /door/sign-in': { body: z.strictObject({ name: z.string(), passphrase: z.string() }), answer: null },
  'POST /door/sign-out': { answer: null },
  'POST /door/recover': {
    body: z.strictObject({ name: z.string(), code: z.string(), passphrase: z.string() }),
    answer: code,
  },
  'POST /door/passphrase': {
    body: z.strictObject({ now: z.string().optional(), passphrase: z.string() }),
    answer: code,
  },
  'GET /door/devices': { answer: items(deviceSchema) },
  'DELETE /door/devices/{id}': { answer: null },
  'DELETE /door/devices': { answer: null },
  'POST /door/pairings': { answer: pairingSchema },
  'POST /door/pair': { body: z.strictObject({ key: z.string(), name: z.string(), pin: z.string() }), answer: null },
  'POST /door/left': { body: z.strictObject({ events: z.array(z.looseObject({})) }), answer: null },
  'GET /left': { answer: items(leftSchema) },
  'POST /left/{id}/take': { answer: takenSchema },
  'DELETE /left/{id}': { answer: null },
  'POST /door/lock': { answer: null },
  'POST /door/unlock': { body: z.strictObject({ pin: z.string() }), answer: null },

  'GET /accounts': { answer: items(accountSchema) },
  'POST /accounts': {
    body: z.strictObject({ name: z.string(), role: z.enum(ROLES) }),
    answer: code.extend({ account: accountSchema }),
  },
  'PATCH /accounts/{id}': {
    body: z.strictObject({ role: z.enum(ROLES).optional(), shutOut: z.boolean().optional() }),
    answer: accountSchema,
  },
  'POST /accounts/{id}/code': { answer: code },

  'GET /audit': { query: [...PAGED, 'clientId', 'accountId'], answer: page(auditEntrySchema) },
  'GET /audit/whole': { answer: z.strictObject({ brokenAt: z.int().nullable() }) },
  'GET /audit.csv': { answer: csv },

  'GET /network': { answer: z.strictObject({ addresses: z.array(z.string()), fingerprint: z.string().nullable() }) },
  'GET /network/root.crt': { answer: { type: 'application/x-x509-ca-cert' } },

  'GET /studio': { answer: studioSchema },
  'PATCH /studio': { body: studioChangeSchema, answer: studioSchema },
  'GET /studio/keeping': { answer: keepingSchema },
  'POST /studio/demo': { answer: studioSchema },

  'GET /clients': { answer: items(clientSummarySchema) },
  'POST /clients': { body: newClientSchema, answer: client },
  'GET /clients/{id}': { answer: client },
  'PATCH /clients/{id}': { body: clientChangeSchema, answer: client },
  'DELETE /clients/{id}': { body: z.strictObject({ name: z.string() }), answer: null },
  'GET /clients/{id}/on/{day}': { answer: clientOnDaySchema },
  'GET /clients/{id}/file': { answer: clientFile },
  'POST /clients/file': { body: 'file', answer: client },
  'GET /clients/{id}/sets': { query: PAGED, answer: page(setRowSchema) },
  'GET /clients/{id}/sets.csv': { answer: csv },
  'GET /clients/{id}/record': { answer: clientRecord },
  'GET /clients/{id}/trainers': { answer: accountIds },
  'POST /clients/{id}/trainers': { body: accountIds, answer: accountIds },
  'GET /clients/{clientId}/stills': { answer: items(stillSchema) },
  'POST /clients/{clientId}/stills': { body: stillSchema, answer: stillSchema },
  'DELETE /clients/{clientId}/stills/{id}': { answer: null },
  'POST /erased': {
    body: z.strictObject({ ids: z.array(uuid) }),
    answer: z.strictObject({ erased: z.array(uuid) }),
  },

  'POST /imports': { query: ['kind'], body: 'file', answer: importPreviewSchema },
  'POST /imports/{id}/apply': {
    body: z.strictObject({ take: z.array(z.string()) }),
    answer: { type: 'application/x-ndjson' },
  },

  'GET /library/texts': { answer: items(searchTextSchema) },
  'GET /library/health': { answer: healthSchema },
  'GET /library/house-rules': { answer: items(houseRuleSchema) },
  'GET /library/fault-kinds': { answer: items(faultKindSchema) },
  'GET /library/causes': { answer: items(z.string()) },
  'GET /library/demands': { answer: items(demandLevelSchema) },
  'GET /library/conditions': { answer: items(conditionSchema) },
  'GET /library/figures': {
    answer: z.strictObject({ poses: posesSchema, figures: z.record(z.string(), figureSchema) }),
  },
  'GET /library/stills': { answer: items(z.string()).extend({ started: z.array(z.string()) }) },
  'GET /library/stills/{movementId}.svg': { answer: svg },
  'GET /library/stills/{movementId}/start.svg': { answer: svg },
  'GET /library/stills/{movementId}/small.webp': { answer: { type: 'image/webp' } },
  'GET /library/pack': { query: ['ids'], answer: pack },
  'GET /library/pages': { query: ['ids'], answer: items(movementPage) },
  'GET /library/movements.csv': { query: ['ids'], answer: csv },
  'GET /schema/pack': { answer: z.looseObject({}) },

  'GET /movements': { query: ['q', 'family', 'archived', ...PAGED], answer: movementList },
  'POST /movements': { body: movement, answer: movementPage },
  'GET /movements/{id}': { answer: movementPage },
  'PATCH /movements/{id}': { body: movementChange, answer: movementPage },
  'GET /movements/{id}/versions': { answer: z.array(movementVersion) },
  'POST /movements/{id}/archive': {
    body: z.strictObject({ version, archived: z.boolean() }),
    answer: movementPage,
  },
  'GET /movements/{id}/card.md': { answer: markdown },
  'GET /movements/{movementId}/pictures': { answer: z.array(pictureSchema) },
  'POST /movements/{movementId}/pictures': { query: ['caption'], body: 'file', answer: z.array(pictureSchema) },
  'GET /movements/{movementId}/pictures/{id}': { answer: { type: 'image/*' } },
  'DELETE /movements/{movementId}/pictures/{id}': { answer: z.array(pictureSchema) },

  'GET /plans': { query: [...PAGED, 'clientId', 'kind', 'from', 'to'], answer: page(planSummarySchema) },
  'POST /plans': { body: z.strictObject({ id: uuid.optional(), plan }), answer: storedPlan },
  'GET /plans/{id}': { answer: storedPlan },
  'PATCH /plans/{id}': { body: z.strictObject({ version, plan }), answer: storedPlan },
  'DELETE /plans/{id}': { answer: null },
  'GET /plans/{id}/sheet': { query: ['clientId', 'paper'], answer: sheetSchema },
  'GET /plans/{id}/sheet.md': { query: ['clientId', 'paper'], answer: markdown },
  'GET /plans/{id}/sheet.pdf': { query: ['clientId', 'paper'], answer: { type: 'application/pdf' } },
  'GET /plans/{id}/calendar.ics': { answer: calendar },
  'POST /plans/{id}/send': {
    body: z.strictObject({ clientId: uuid, to: z.string().optional() }),
    answer: outboxMessageSchema,
  },
  'GET /calendar': { answer: feedSchema },
  'POST /calendar': { answer: z.strictObject({ secret: z.string() }) },
  'DELETE /calendar': { answer: null },
  'GET /calendar/{secret}.ics': { answer: calendar },
  'GET /outbox': { answer: items(outboxMessageSchema) },
  'GET /outbox/{name}': { answer: { type: 'message/rfc822' } },
  'DELETE /outbox/{name}': { answer: null },

  'GET /sessions': { query: [...PAGED, 'clientId', 'status', 'from', 'to'], answer: page(listedSessionSchema) },
  'POST /sessions': {
    body: z.strictObject({
      id: uuid.optional(),
      clientIds: z.array(uuid),
      planId: uuid.optional(),
      /** The programme of a session that only a device still has. */
      programme: programme.optional(),
      /** A session that was begun before, and that the server does not have any more. */
      again: z.boolean().optional(),
      startedAt: instant,
    }),
    answer: sessionView,
  },
  'GET /sessions/{id}': { answer: sessionView },
  'GET /sessions/{id}/events': { query: ['after'], answer: laterEvents },
  'POST /sessions/{id}/events': {
    body: sentEvents,
    /** How many were new, how many were here already, and the place of the last. */
    answer: z.strictObject({ stored: z.int(), known: z.int(), place: z.int() }),
  },
  'POST /sessions/{id}/events/missing': {
    body: z.strictObject({ ids: z.array(uuid) }),
    answer: z.strictObject({ missing: z.array(uuid) }),
  },
  'GET /sessions/{id}/sets': { answer: z.array(setRowSchema) },
  'GET /sessions/{id}/sets.csv': { answer: csv },
} as const satisfies Record<string, Operation>;

export type Operations = typeof OPERATIONS;
export type OperationName = keyof Operations;

/** What an operation answers, as the page has it. */
export type Answer<K extends OperationName> = Operations[K]['answer'] extends z.ZodType
  ? z.output<Operations[K]['answer']>
  : undefined;

/** What an operation is sent, `file` standing for bytes; never where there is nothing to send. */
export type Body<K extends OperationName> = Operations[K] extends { body: infer B }
  ? B extends z.ZodType
    ? z.input<B>
    : B
  : never;

/** What may stand in the query of an operation. */
export type Query<K extends OperationName> = Operations[K] extends { query: readonly (infer Q extends string)[] }
  ? Q
  : never;

/** The names in braces of a path. */
export type PathNames<S extends string> = S extends `${string}{${infer Name}}${infer Rest}`
  ? Name | PathNames<Rest>
  : never;
