/** Checking one movement of unknown shape against the schema. What only shows across movements is `ladder/references.ts`. */
import { problemsOf, type Problem } from './problem.js';
import { z } from './zod.js';
import { houseRuleSchema, type HouseRule } from './house-rules.js';
import { movementSchema, type Movement } from './schema.js';

export type Checked<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** Checks one movement of unknown shape. Nothing outside the movement is looked at. */
export function checkMovement(input: unknown): Checked<Movement> {
  const result = movementSchema.safeParse(input, { reportInput: true });
  return result.success ? { ok: true, value: result.data } : { ok: false, problems: problemsOf(result.error) };
}

/** Checks the house rules of a library. */
export function checkRules(input: unknown): Checked<HouseRule[]> {
  const result = z.array(houseRuleSchema).safeParse(input, { reportInput: true });
  return result.success ? { ok: true, value: result.data } : { ok: false, problems: problemsOf(result.error) };
}
