/**
 * The door comes before the body: who asks is known before anything is read of what they send. Nobody in particular may send as much as a name
 * and a passphrase, and only to the door; everybody together may have so much on the way at once.
 */
import type { NextFunction, Request, Response } from 'express';

import { ProblemException } from '../problems/problem.js';
import { letInto, setEntry } from './allowed.js';
import type { DoorService, Entry } from './door.service.js';

/** Bytes of a body before somebody is in. */
const MOST_UNKNOWN = 4_096;
/** Bytes of the taps that a device which was shut out leaves at once. */
const MOST_LEFT = 256 * 1024;
/** Bytes of all bodies together that are being read. */
const MOST_AT_ONCE = 100 * 1024 * 1024;

const DOOR = '/api/door/';
const LEFT = '/api/door/left';

export function doorFirst(door: () => DoorService) {
  let reading = 0;
  /** Bytes that a body may still bring: what it says of itself, or the most that anything here takes where it says nothing. */
  const sizeOf = ({ headers }: Request): number =>
    headers['transfer-encoding'] === undefined ? Number(headers['content-length'] ?? 0) : MOST_AT_ONCE / 2;
  return (request: Request, response: Response, next: NextFunction): void => {
    if (!request.path.startsWith('/api/')) return next();
    const size = sizeOf(request);
    const enter = (entry: Entry): void => {
      setEntry(request, entry);
      if (size === 0) return;
      if (!request.path.startsWith(DOOR)) letInto(entry);
      const most = entry.leaver && request.path === LEFT ? MOST_LEFT : MOST_UNKNOWN;
      if (entry.visitor === null && !(size <= most)) throw new ProblemException(413, 'This is too long for the door.');
      if (reading + size > MOST_AT_ONCE)
        throw new ProblemException(503, 'Too much is being sent at once. Try again in a moment.');
      reading += size;
      response.once('close', () => (reading -= size));
    };
    // What is not read is not waited for either.
    const refuse = (error: unknown): void => {
      response.setHeader('Connection', 'close');
      next(error);
    };
    door()
      .entryOf(request)
      .then(enter)
      .then(() => next(), refuse);
  };
}
