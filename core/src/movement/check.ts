/** Checking one movement of unknown shape against the schema. What only shows across movements is `ladder/references.ts`. */
import { checkedBy, type Checked } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { houseRuleSchema, type HouseRule } from './house-rules.js';
import { movementSchema, type Movement } from './schema.js';

/** Checks one movement of unknown shape. Nothing outside the movement is looked at. */
export const checkMovement = (input: unknown): Checked<Movement> => checkedBy(movementSchema, input);

/** Checks the house rules of a library. */
export const checkRules = (input: unknown): Checked<HouseRule[]> => checkedBy(z.array(houseRuleSchema), input);
