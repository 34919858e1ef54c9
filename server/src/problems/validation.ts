/** class-validator for every request: unknown fields are refused, and errors come back by field path. */
import { ValidationPipe } from '@nestjs/common';
import type { Problem } from '@waxwing/core/schema';
import type { ValidationError } from 'class-validator';

import { invalid } from './problem.js';

/** What class-validator found, by field path. */
export function problemsIn(errors: readonly ValidationError[], parent = ''): Problem[] {
  return errors.flatMap(({ property, constraints, children }) => {
    const path = /^\d+$/.test(property) ? `${parent}[${property}]` : parent ? `${parent}.${property}` : property;
    const own = Object.entries(constraints ?? {}).map(([rule, message]) => ({
      path,
      // The library's messages begin with the bare property name, which the path says better.
      message: rule === 'whitelistValidation' ? 'is not a known field' : message.replace(`${property} `, ''),
    }));
    return [...own, ...problemsIn(children ?? [], path)];
  });
}

export const validation = (): ValidationPipe =>
  new ValidationPipe({
    whitelist: true,
    forbidNonWhitelisted: true,
    transform: true,
    exceptionFactory: (errors) => invalid(problemsIn(errors)),
  });
