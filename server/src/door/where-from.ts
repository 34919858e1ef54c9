/** Where a request comes from: the machine itself, the studio's network, or a proxy that Waxwing was told of. */
import type { TLSSocket } from 'node:tls';

import type { Request } from 'express';

import type { Config } from '../config.js';

export interface WhereFrom {
  address: string;
  /** The machine itself, over plain HTTP on its loopback. */
  here: boolean;
  /** Whether what is said on the way cannot be read by others. */
  secure: boolean;
}

/** What proxies add of themselves; no browser sends any of it. */
const FORWARDED = [
  'forwarded',
  'via',
  'x-client-ip',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-port',
  'x-forwarded-proto',
  'x-forwarded-server',
  'x-real-ip',
];

/** Whether a request shows that it came through a proxy. Many that add nothing speak HTTP/1.0 on the way on, which no browser does. */
export const cameThroughProxy = ({ headers, httpVersion }: Request): boolean =>
  httpVersion === '1.0' || FORWARDED.some((header) => headers[header] !== undefined);

/** Headers of a proxy count only where one is told of; then nobody is on the machine itself, because everybody seems to be. */
export function whereFrom(request: Request, { proxy }: Pick<Config, 'proxy'>): WhereFrom {
  const peer = request.socket.remoteAddress ?? '';
  if (proxy) {
    const forwarded = String(request.headers['x-forwarded-for'] ?? '');
    // The last one is the proxy's own word; those before it are whatever was sent to it.
    return { address: forwarded.split(',').at(-1)?.trim() || peer, here: false, secure: proxy.protocol === 'https:' };
  }
  const secure = (request.socket as TLSSocket).encrypted === true;
  return { address: peer, here: !secure, secure };
}

const BROWSERS: readonly [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/OPR\//, 'Opera'],
  [/Firefox\//, 'Firefox'],
  [/Chrome\//, 'Chrome'],
  [/Safari\//, 'Safari'],
];
const SYSTEMS: readonly [RegExp, string][] = [
  [/Android/, 'Android'],
  [/iPhone|iPad|iPod/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'macOS'],
  [/CrOS/, 'ChromeOS'],
  [/Linux/, 'Linux'],
];

/** What browser it is and on what, such as `Chrome on Linux`: versions come and go while somebody is signed in. */
export function browserOf({ headers }: Pick<Request, 'headers'>): string {
  const agent = headers['user-agent'] ?? '';
  const named = (all: readonly [RegExp, string][], other: string) =>
    all.find(([sign]) => sign.test(agent))?.[1] ?? other;
  return `${named(BROWSERS, 'another program')} on ${named(SYSTEMS, 'another system')}`;
}
