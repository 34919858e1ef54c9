/** Checking one movement of unknown shape against the schema. What only shows across movements is `ladder/references.ts`. */
import { type Checked, checkedBy } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { type HouseRule, houseRuleSchema } from './house-rules.js';
import { type Movement, movementSchema } from './schema.js';

/** Checks one movement of unknown shape. Nothing outside the movement is looked at. */
export const checkMovement = (input: unknown): Checked<Movement> => checkedBy(movementSchema, input);

/** Checks the house rules of a library. */
export const checkRules = (input: unknown): Checked<HouseRule[]> => checkedBy(z.array(houseRuleSchema), input);
