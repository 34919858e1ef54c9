/** JSON bodies: looked at before they are parsed, so that none is too deep, and no key comes twice. */
import { wrongInJson } from '@waxwing/core/schema';
import express, { type NextFunction, type Request, type Response } from 'express';
import { invalid, ProblemException } from './problem.js';

/**
 * JSON that came as bytes.
 * @param path what the answer names when it is none
 * @throws 422 for text that is none, or that no document here looks like
 */
export function jsonIn(bytes: Buffer, path: string, what: string): unknown {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw invalid([{ path, message: `is not ${what}: it is not UTF-8 text` }]);
  }
  const wrong = wrongInJson(text);
  if (wrong) throw invalid([wrong]);
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw invalid([{ path, message: `is not ${what}: it cannot be read as JSON` }]);
  }
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
    const body = jsonIn(bytes, 'body', 'what is taken here');
    if (typeof body !== 'object' || body === null) throw invalid([{ path: 'body', message: 'must be an object' }]);
    request.body = body;
    next();
  } catch (error) {
    next(error);
  }
}
