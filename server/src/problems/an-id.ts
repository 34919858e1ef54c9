/** The id in an address. One that cannot be an id is the id of nothing. */
import { ParseUUIDPipe } from '@nestjs/common';

import { ProblemException } from './problem.js';

/** @throws ProblemException 404 */
export const AN_ID = new ParseUUIDPipe({
  exceptionFactory: () => new ProblemException(404, 'Nothing has the id that the address names.'),
});
