/** The schemas of the API as JSON Schema, for its description. What has a name of its own is described once. */
import { clientOnDaySchema, clientSchema, clientSummarySchema } from '../client/client-schema.js';
import { benchmarkSchema, readinessCheckSchema, todayCheckSchema } from '../client/screening.js';
import { stillSchema } from '../client/still.js';
import { keptPlaceSchema, studioSchema } from '../client/studio-schema.js';
import { clientRecordSchema } from '../coaching/evidence-schema.js';
import { accountSchema, auditEntrySchema, deviceSchema } from '../door/door-schema.js';
import { setRowSchema } from '../formats/set-row.js';
import { sheetSchema } from '../formats/sheet-schema.js';
import { movementPageSchema } from '../ladder/page.js';
import { faultKindSchema } from '../movement/fault-kinds.js';
import { houseRuleSchema } from '../movement/house-rules.js';
import { kitPieceSchema } from '../movement/kit-schema.js';
import { limitSchema } from '../movement/limit-schema.js';
import { movementSchema } from '../movement/schema.js';
import { movementSummarySchema } from '../movement/summary-schema.js';
import { blockSchema, laneSchema, planSchema } from '../planning/plan.js';
import { storedPlanSchema } from '../planning/stored.js';
import { z } from '../schema/zod.js';
import { eventSchema } from '../session/events.js';
import { programmeSchema } from '../session/programme.js';

const NAMES = z.registry<{ id: string }>();
const named: Readonly<Record<string, z.ZodType>> = {
  Account: accountSchema,
  AuditEntry: auditEntrySchema,
  Benchmark: benchmarkSchema,
  Block: blockSchema,
  Client: clientSchema,
  ClientOnDay: clientOnDaySchema,
  ClientRecord: clientRecordSchema,
  ClientSummary: clientSummarySchema,
  Device: deviceSchema,
  FaultKind: faultKindSchema,
  HouseRule: houseRuleSchema,
  KeptPlace: keptPlaceSchema,
  KitPiece: kitPieceSchema,
  Lane: laneSchema,
  Limit: limitSchema,
  Movement: movementSchema,
  MovementPage: movementPageSchema,
  MovementSummary: movementSummarySchema,
  Plan: planSchema,
  Programme: programmeSchema,
  ReadinessCheck: readinessCheckSchema,
  SessionEvent: eventSchema,
  SetRow: setRowSchema,
  Sheet: sheetSchema,
  Still: stillSchema,
  StoredPlan: storedPlanSchema,
  Studio: studioSchema,
  TodayCheck: todayCheckSchema,
};
for (const [id, schema] of Object.entries(named)) NAMES.add(schema, { id });

export interface DescribedSchema {
  schema: Record<string, unknown>;
  /** What it refers to as `#/components/schemas/…`. */
  named: Record<string, Record<string, unknown>>;
}

/**
 * A schema as JSON Schema (2020-12).
 * @param way what is `sent` may leave out what is usual, and is named apart from what is `answered`
 */
export function describeSchema(schema: z.ZodType, way: 'sent' | 'answered'): DescribedSchema {
  const suffix = way === 'sent' ? 'Sent' : '';
  // The name under which something is described once is not a part of what is described.
  const text = JSON.stringify(
    z.toJSONSchema(schema, { io: way === 'sent' ? 'input' : 'output', metadata: NAMES }),
    (key, value: unknown) => (key === 'id' && typeof value === 'string' && value in named ? undefined : value),
  ).replace(/"#\/\$defs\/(\w+)"/g, (_, name: string) => `"#/components/schemas/${name}${suffix}"`);
  const {
    $schema: _,
    $defs = {},
    ...own
  } = JSON.parse(text) as {
    $schema?: string;
    $defs?: Record<string, Record<string, unknown>>;
  } & Record<string, unknown>;
  return {
    schema: own,
    named: Object.fromEntries(Object.entries($defs).map(([name, one]) => [`${name}${suffix}`, one])),
  };
}

/** Whether an answer is JSON, and no other kind of content. */
export const isSchema = (answer: z.ZodType | { type: string }): answer is z.ZodType => answer instanceof z.ZodType;
