/** Why a day asks for ease: somebody qualified has not cleared the client yet, or what today's check says. */
import { REGIONS } from '../movement/vocabulary.js';
import { reasonOf } from '../schema/reason.js';
import { z } from '../schema/zod.js';

export const easeSchema = z.discriminatedUnion('code', [
  reasonOf('clearance', {}),
  reasonOf('today', { sleep: z.boolean(), energy: z.boolean(), sore: z.array(z.enum(REGIONS)).max(REGIONS.length) }),
  /** All that a device knows of it. */
  reasonOf('some', {}),
]);
export type Ease = z.infer<typeof easeSchema>;
