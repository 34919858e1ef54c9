/** The walls: which names this machine answers to, what other web sites may not do, how often and how slowly somebody may ask. */
import { domainToASCII } from 'node:url';

import type { NextFunction, Request, Response } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import helmet from 'helmet';

import type { Config } from './config.js';
import { cameThroughProxy, whereFrom } from './door/where-from.js';
import { asHost, ownAddresses, ownNames } from './network/addresses.js';
import { problemBody } from './problems/problem.js';

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])$/;

/** What sees on a clip is compiled from a file of this origin, and a clip is played from where the trainer has it. */
const CONTENT = {
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
  workerSrc: ["'self'"],
  mediaSrc: ["'self'", 'blob:'],
  imgSrc: ["'self'", 'data:', 'blob:'],
  styleSrc: ["'self'", "'unsafe-inline'"],
  objectSrc: ["'none'"],
  baseUri: ["'none'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
};

/** What a page of this studio may ask the device for. */
const PERMISSIONS = 'camera=(self), geolocation=(), microphone=(), payment=(), usb=(), screen-wake-lock=(self)';

const headers = (contentSecurityPolicy: object) =>
  helmet({
    contentSecurityPolicy,
    frameguard: { action: 'deny' },
    // A name of one's own network is no name for ever: the next machine there may have no HTTPS.
    strictTransportSecurity: false,
  });
const ofPages = headers({ useDefaults: false, directives: CONTENT });
/** The API's own documentation brings inline scripts; it shows no data. */
const ofDocs = headers({
  useDefaults: false,
  directives: { defaultSrc: ["'self'", "'unsafe-inline'", 'data:'], frameAncestors: ["'none'"] },
});

const refuse = (response: Response, status: number, detail: string): void => {
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify(problemBody(status, detail)));
};

/** The name of a `Host` header without its port; null for what is none. */
function nameIn(host: string): string | null {
  const name = /^(\[[0-9a-f:.]+\]|[^:@/\s]+)(:\d+)?$/i.exec(host)?.[1]?.toLowerCase();
  return name === undefined ? null : name.startsWith('[') ? name : domainToASCII(name) || null;
}

/** Whether a request names this machine as it is known on the way that it came. */
function isOurs(request: Request, config: Config): boolean {
  const name = nameIn(request.headers.host ?? '');
  if (name === null) return false;
  if (config.proxy) return request.headers.host === config.proxy.host;
  if (!whereFrom(request, { proxy: null }).secure) return LOOPBACK.test(name);
  const known = [...ownAddresses().map(asHost), ...ownNames(config.network?.names), 'localhost', '127.0.0.1'];
  return known.includes(name);
}

/** Refuses names that do not belong to this machine (a page elsewhere may point its own name here) and whatever other sites send. */
export function security(config: Config) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const { origin, host, 'sec-fetch-site': site } = request.headers;
    const changes = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
    const scheme = whereFrom(request, config).secure ? 'https' : 'http';
    const foreign = origin !== undefined && origin !== `${scheme}://${host}`;
    const api = request.path.startsWith('/api/');
    if (!isOurs(request, config) || (foreign && changes) || (site === 'cross-site' && (changes || api)))
      return refuse(response, 403, 'This request comes from another site.');
    if (!config.proxy && cameThroughProxy(request))
      return refuse(
        response,
        403,
        'This request came through a proxy that Waxwing was not told of: set WAXWING_PROXY.',
      );
    response.setHeader('Permissions-Policy', PERMISSIONS);
    if (api) response.setHeader('Cache-Control', 'no-store');
    (request.path.startsWith('/api/docs') ? ofDocs : ofPages)(request, response, next);
  };
}

const TEN_SECONDS = 10_000;

/** Refuses, before anything is read of it, what comes too often from another machine. */
export const notTooOften = (config: Config) =>
  rateLimit({
    windowMs: TEN_SECONDS,
    limit: config.mostRequests,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    // Addresses are told apart by what this machine itself saw, never by what a request says of itself.
    validate: false,
    keyGenerator: (request) => ipKeyGenerator(whereFrom(request, config).address),
    skip: (request) => whereFrom(request, config).here,
    handler: (_, response) => refuse(response, 429, 'That was too often. Wait ten seconds.'),
  });

/** A body has so long to come, and this much more for each 50 kB of it. */
const SLOWEST_MS = 10_000;
const BYTES_A_SECOND = 50_000;
const LONGEST_MS = 900_000;

/** Cuts off a body that comes drop by drop. */
export function notTooSlowly(request: Request, response: Response, next: NextFunction): void {
  const said = Number(request.headers['content-length'] ?? 0);
  const given = Math.min(SLOWEST_MS + (Number.isFinite(said) ? (said / BYTES_A_SECOND) * 1000 : 0), LONGEST_MS);
  const timer = setTimeout(() => request.complete || request.socket.destroy(), given).unref();
  request.once('end', () => clearTimeout(timer));
  // One that is refused before it is read to its end never ends.
  response.once('close', () => clearTimeout(timer));
  next();
}
