/** Documents in requests: checked by the schema of core that files and the store are checked by. */
import type { PipeTransform } from '@nestjs/common';
import { checkedBy, type Problem, type Schema } from '@waxwing/core/schema';

import { invalid, type ProblemException } from './problem.js';

/** What is wrong with a document; with the whole of it where it is none at all. */
export const refused = (problems: readonly Problem[]): ProblemException =>
  invalid(problems.map(({ path, message }) => ({ path: path || 'body', message })));

/** A body that is a document. @throws 422 naming the fields that are wrong; `body` where it is none at all */
export const document = <T>(schema: Schema<T>): PipeTransform<unknown, T> => ({
  transform(body) {
    const checked = checkedBy(schema, body);
    if (checked.ok) return checked.value;
    throw refused(checked.problems);
  },
});
