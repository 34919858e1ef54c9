/** JSON bodies: looked at before they are parsed, so that none is too deep, and no key comes twice. */
import { wrongInJson } from '@waxwing/core/schema';
import express, { type NextFunction, type Request, type Response } from 'express';

import { parsed } from '../database/json-column.js';
import { invalid, ProblemException } from './problem.js';

/** JSON that came as bytes. @throws 422 for text that is none, or that no document here looks like */
function jsonIn(bytes: Buffer): object {
  const refuse = (message: string) => invalid([{ path: 'body', message }]);
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw refuse('is not UTF-8 text');
  }
  const wrong = wrongInJson(text);
  if (wrong) throw invalid([wrong]);
  const body = parsed(text);
  if (body === undefined) throw refuse('cannot be read as JSON');
  if (typeof body !== 'object' || body === null) throw refuse('must be an object');
  return body;
}

/** Bodies of requests that are JSON, and nothing else. What was taken as bytes already stays bytes. */
export const jsonBodies = (limit: string) => [
  (request: Request, _: Response, next: NextFunction): void => {
    const { 'content-length': length, 'transfer-encoding': coded } = request.headers;
    const empty = coded === undefined && (length === undefined || length === '0');
    const charset = /charset="?([^";]+)/i.exec(request.headers['content-type'] ?? '')?.[1] ?? 'utf-8';
    const isJson = request.is('application/json') && charset.toLowerCase() === 'utf-8';
    if (empty || Buffer.isBuffer(request.body) || isJson) next();
    else next(new ProblemException(415, 'A body must be JSON in UTF-8, sent as application/json.'));
  },
  (request: Request, response: Response, next: NextFunction): void => {
    if (Buffer.isBuffer(request.body)) next();
    else
      readBytes(limit)(request, response, (error?: unknown) => {
        if (error) next(error);
        else parse(request, next);
      });
  },
];

const readBytes = (limit: string) => express.raw({ type: 'application/json', limit });

function parse(request: Request, next: NextFunction): void {
  const bytes: unknown = request.body;
  if (!Buffer.isBuffer(bytes)) return next();
  if (bytes.length === 0) {
    request.body = undefined;
    return next();
  }
  try {
    request.body = jsonIn(bytes);
    next();
  } catch (error) {
    next(error);
  }
}
