/** A load as plans and events hold it. What loads a kit can make is `loads.ts`. */
import { KIT_ITEMS } from '../movement/vocabulary.js';
import { whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';

export const loadSchema = z.strictObject({
  item: z.enum(KIT_ITEMS),
  count: whole(1, 10),
  kg: z.number().min(0, 'must be 0 to 1000').max(1000, 'must be 0 to 1000').nullable(),
  label: z.string().min(1, 'must not be empty').max(60, 'must be at most 60 characters'),
  setting: z.string().max(80, 'must be at most 80 characters').optional(),
  changeSeconds: whole(0, 600),
});
