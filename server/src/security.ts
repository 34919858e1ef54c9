/** What keeps other web sites away from a studio's data: host and origin checks, no caching of answers, a strict content policy. */
import type { NextFunction, Request, Response } from 'express';
import { problemBody } from './problems/problem.js';

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;
/** What sees on a clip is compiled from a file of this origin, and a clip is played from where the trainer has it. */
const CONTENT_POLICY =
  "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; worker-src 'self'; media-src 'self' blob:; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

/** What a page of this studio may ask the device for. */
const PERMISSIONS = 'camera=(self), geolocation=(), microphone=(), payment=(), usb=(), screen-wake-lock=(self)';

/** Refuses names that do not belong to this machine (a page elsewhere may point its own name here) and changes from other origins. */
export function security(host: string) {
  const loopbackOnly = LOOPBACK.test(host);
  return (request: Request, response: Response, next: NextFunction): void => {
    const asked = request.headers.host ?? '';
    const origin = request.headers.origin;
    const foreign = origin !== undefined && origin.replace(/^https?:\/\//, '') !== asked;
    if ((loopbackOnly && !LOOPBACK.test(asked)) || (foreign && request.method !== 'GET')) {
      response
        .status(403)
        .type('application/problem+json')
        .send(JSON.stringify(problemBody(403, 'This request comes from another site.')));
      return;
    }
    response.setHeader('X-Content-Type-Options', 'nosniff');
    response.setHeader('Referrer-Policy', 'no-referrer');
    response.setHeader('X-Frame-Options', 'DENY');
    response.setHeader('Cross-Origin-Resource-Policy', 'same-origin');
    response.setHeader('Cross-Origin-Opener-Policy', 'same-origin');
    response.setHeader('Permissions-Policy', PERMISSIONS);
    if (request.path.startsWith('/api/')) response.setHeader('Cache-Control', 'no-store');
    // The API's own documentation page brings inline scripts; it shows no data.
    response.setHeader(
      'Content-Security-Policy',
      request.path.startsWith('/api/docs') ? "frame-ancestors 'none'" : CONTENT_POLICY,
    );
    next();
  };
}
