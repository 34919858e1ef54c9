/** JSON bodies: looked at before they are parsed, so that none is too deep, and no key comes twice. */
import { wrongInJson } from '@waxwing/core/schema';
import type { NextFunction, Request, Response } from 'express';
import express from 'express';
import { invalid, ProblemException } from './problem.js';

/** JSON that came as bytes. @throws 422 for text that is none, or that no document here looks like */
export function jsonIn(bytes: Buffer, what: string): unknown {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw invalid([{ path: 'file', message: `is not ${what}: it is not UTF-8 text` }]);
  }
  const wrong = wrongInJson(text);
  if (wrong) throw invalid([wrong]);
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw invalid([{ path: 'file', message: `is not ${what}: it cannot be read as JSON` }]);
  }
}

const TAKES_BODY = ['POST', 'PATCH', 'PUT', 'DELETE'];

/** Bodies of requests that are JSON, and nothing else. */
export const jsonBodies = (limit: string) => [
  (request: Request, _: Response, next: NextFunction): void => {
    const empty = request.headers['content-length'] === '0' || !hasBody(request);
    // What was taken as bytes is not read again.
    if (
      Buffer.isBuffer(request.body) ||
      empty ||
      !TAKES_BODY.includes(request.method) ||
      request.is('application/json')
    )
      next();
    else next(new ProblemException(415, 'A body must be JSON, sent as application/json.'));
  },
  express.json({
    limit,
    verify: (_request, _response, bytes) => {
      const wrong = wrongInJson(bytes.toString('utf8'));
      if (wrong) throw invalid([wrong]);
    },
  }),
];

const hasBody = ({ headers }: Request): boolean =>
  headers['transfer-encoding'] !== undefined || headers['content-length'] !== undefined;
