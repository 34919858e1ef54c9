/** The vocabulary of causes: why faults come about, by kind. A cause is written `kind/detail`; its words are its name. */
import { type Checked, checkedBy, slug } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { CAUSE_KINDS } from './vocabulary.js';

const causesSchema = z
  .record(
    z.enum(CAUSE_KINDS),
    z
      .array(slug)
      .min(1, 'needs at least one cause')
      .superRefine((details, context) =>
        details.forEach((detail, i) => {
          if (details.indexOf(detail) < i)
            context.addIssue({ code: 'custom', path: [i], message: `"${detail}" is used twice` });
        }),
      ),
  )
  .transform((kinds) => CAUSE_KINDS.flatMap((kind) => kinds[kind].map((detail) => `${kind}/${detail}`)));

/** Checks the vocabulary, kind by kind, and gives it as a list in the order of the kinds. */
export const checkCauses = (input: unknown): Checked<string[]> => checkedBy(causesSchema, input);
