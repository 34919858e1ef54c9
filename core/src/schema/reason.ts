/** A reason as data: its code, and the facts that its sentence names. Sentences are made where they are shown. */
import { z } from './zod.js';

export const reasonOf = <Code extends string, Facts extends z.ZodRawShape>(code: Code, facts: Facts) =>
  z.strictObject({ code: z.literal(code), ...facts });
