/** Errors as `application/problem+json` (RFC 9457), with the field paths that are wrong. */
import { HttpException } from '@nestjs/common';
import type { Problem } from '@waxwing/core/schema';

export interface ProblemBody {
  type: string;
  title: string;
  status: number;
  detail?: string;
  errors?: Problem[];
}

const TITLES: Readonly<Record<number, string>> = {
  400: 'The request cannot be read',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  409: 'Changed in the meantime',
  410: 'Gone for good',
  413: 'Too large',
  415: 'Of a wrong kind',
  422: 'Some fields are wrong',
  500: 'Something went wrong',
  503: 'Busy',
  507: 'The disk is full',
};

export const problemBody = (status: number, detail?: string, errors?: Problem[]): ProblemBody => ({
  type: 'about:blank',
  title: TITLES[status] ?? 'Error',
  status,
  ...(detail === undefined ? {} : { detail }),
  ...(errors === undefined ? {} : { errors }),
});

/** An error for the client of the API. Nothing is changed when it is thrown. */
export class ProblemException extends HttpException {
  constructor(status: number, detail?: string, errors?: Problem[]) {
    super(problemBody(status, detail, errors), status);
  }
}

/** So many are worth telling at once. */
const MOST_TOLD = 50;

/** Fields that are wrong, each with its path: the first ones. */
export function invalid(errors: readonly Problem[]): ProblemException {
  const told = errors.slice(0, MOST_TOLD);
  return new ProblemException(422, told.map(({ path, message }) => `${path} ${message}`).join('; '), told);
}

export const notFound = (what: string, id: string): ProblemException =>
  new ProblemException(404, `There is no ${what} "${id}".`);

/** A stale edit: somebody saved a newer version. */
export const stale = (what: string, sent: number, current: number): ProblemException =>
  new ProblemException(
    409,
    `Somebody changed this ${what} in the meantime. Load it again, and make your change once more.`,
    [{ path: 'version', message: `is ${sent}, but the current version is ${current}` }],
  );
