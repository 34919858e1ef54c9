/** Why a line of a plan is there, with its dose: how it came into the plan, and what the policy of progress says. Kept with the plan. */
import { DAY_KINDS } from '../client/client.js';
import { closingSchema, STEP_REASONS } from '../progress/reason.js';
import { slug, text } from '../schema/atoms.js';
import { reasonOf } from '../schema/reason.js';
import { z } from '../schema/zod.js';

/** How a suggestion came to a movement. */
export const PICKED = ['new', 'too-hard-before', 'rung-down', 'rung-ready', 'rung-below', 'rung-of-last-time'] as const;

export const lineReasonSchema = z.discriminatedUnion('code', [
  ...STEP_REASONS,
  reasonOf('picked', { how: z.enum(PICKED), care: z.boolean() }),
  /** There is more of it for somebody whose day is so. */
  reasonOf('for-day', { day: z.enum(DAY_KINDS) }),
  reasonOf('kept-from-last-time', {}),
  reasonOf('moved', { way: z.enum(['up', 'down']), movementId: slug }),
  /** In the place of a movement that is closed or whose kit is missing. */
  reasonOf('instead', { movementId: slug, by: z.array(closingSchema).max(40) }),
  reasonOf('prepares', {}),
  reasonOf('eases', {}),
  reasonOf('combines', {}),
  /** A test that was last done so many weeks ago. */
  reasonOf('test-due', { weeks: z.number() }),
  /** A sentence, as earlier versions kept it. */
  reasonOf('written', { words: text(400) }),
]);
export type LineReason = z.infer<typeof lineReasonSchema>;

/** Why a line is there, most telling first; the sentence of an earlier version is taken as it is. */
export const whySchema = z.preprocess(
  (why) => (typeof why === 'string' ? whyOf(why) : why),
  z.array(lineReasonSchema).max(12, 'has at most 12 reasons'),
);

/** The one sentence that plans kept before reasons were data. */
export const whyOf = (words: string): LineReason[] => (words.trim() === '' ? [] : [{ code: 'written', words }]);
