/** A form's document by the schema that the server has too: what is wrong is said at its field, before anything is sent. */
import { checkedBy, type Schema } from '@waxwing/core/schema';

import { say } from '../words/say';
import { ProblemError } from './http';

/** @throws ProblemError naming the fields that are wrong */
export function checked<T>(schema: Schema<T>, document: unknown): T {
  const result = checkedBy(schema, document);
  if (!result.ok) throw new ProblemError(422, say.shell.someFieldsNeedAttention, result.problems);
  return result.value;
}
