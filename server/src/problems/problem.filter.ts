/** Every error that leaves the server has the same shape; what is not expected is logged and told without detail. */
import { ArgumentsHost, Catch, ExceptionFilter, HttpException } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';

import { isFull } from '../database/studio-folder.js';
import { type ProblemBody, problemBody, ProblemException } from './problem.js';

@Catch()
export class ProblemFilter implements ExceptionFilter {
  catch(error: unknown, host: ArgumentsHost): void {
    answer(error, host.switchToHttp().getResponse<Response>());
  }
}

/** What no route takes. */
export const nothingHere = ({ method, path }: Request, _: Response, next: NextFunction): void =>
  next(new ProblemException(404, `Nothing takes ${method} at ${path.slice(0, 100)}.`));

/** Errors that come up before a route is reached. Four parameters make it a handler of errors. */
export const problemAnswer = (error: unknown, _: Request, response: Response, _next: NextFunction): void =>
  answer(error, response);

function answer(error: unknown, response: Response): void {
  const body = bodyOf(error);
  if (body.status >= 500) console.error(logged(error));
  if (response.headersSent) {
    response.destroy();
    return;
  }
  response.status(body.status).type('application/problem+json').send(JSON.stringify(body));
}

function bodyOf(error: unknown): ProblemBody {
  if (error instanceof ProblemException) return error.getResponse() as ProblemBody;
  if (error instanceof HttpException) return problemBody(error.getStatus(), error.message);
  if (isFull(error)) return problemBody(507, 'The disk of the studio is full: nothing was saved. Make room on it.');
  // The body parser's own errors carry a status.
  if (error instanceof Error && 'status' in error && typeof error.status === 'number' && error.status < 500)
    return problemBody(error.status, error instanceof SyntaxError ? 'The body is not JSON.' : error.message);
  return problemBody(500, 'Nothing was saved. Try again.');
}

/** What is logged of an error: its kind and where it was. Messages and parameters may hold what is private. */
export function logged(error: unknown): string {
  if (!(error instanceof Error)) return 'something that is no error was thrown';
  const code = 'code' in error && typeof error.code === 'string' ? ` ${error.code}` : '';
  const lines = (error.stack ?? '').split('\n').filter((line) => line.startsWith('    at '));
  return [`${error.name}${code}`, ...lines].join('\n');
}
