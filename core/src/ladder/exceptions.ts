/** Where a library departs from its standards, each with the reason: one list, so that they can be counted. */
import { type Checked, checkedBy, slug, text } from '../schema/atoms.js';
import { z } from '../schema/zod.js';

const exceptionSchema = z.strictObject({ rule: slug, movement: slug, why: text(200) });

/** A rule that a movement may break. */
export type StandardException = z.infer<typeof exceptionSchema>;

/** Checks the list of exceptions. */
export const checkExceptions = (input: unknown): Checked<StandardException[]> =>
  checkedBy(z.array(exceptionSchema), input);
