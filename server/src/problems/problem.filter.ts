/** Every error that leaves the server has the same shape; what is not expected is logged and told without detail. */
import { ArgumentsHost, Catch, ExceptionFilter, HttpException } from '@nestjs/common';
import type { Response } from 'express';
import { problemBody, ProblemException, type ProblemBody } from './problem.js';

@Catch()
export class ProblemFilter implements ExceptionFilter {
  catch(error: unknown, host: ArgumentsHost): void {
    const body = bodyOf(error);
    if (body.status >= 500) console.error(error);
    host
      .switchToHttp()
      .getResponse<Response>()
      .status(body.status)
      .type('application/problem+json')
      .send(JSON.stringify(body));
  }
}

function bodyOf(error: unknown): ProblemBody {
  if (error instanceof ProblemException) return error.getResponse() as ProblemBody;
  if (error instanceof HttpException) return problemBody(error.getStatus(), error.message);
  // The body parser's own errors carry a status.
  if (error instanceof Error && 'status' in error && typeof error.status === 'number' && error.status < 500)
    return problemBody(error.status, error.message);
  return problemBody(500, 'Nothing was saved. Try again.');
}
