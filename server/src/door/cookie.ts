/**
 * The cookie that somebody is signed in by. Over the network its name keeps it to this origin and to HTTPS (RFC 6265bis). Browsers do not tell
 * ports apart for cookies: the port is in the name, so that two studios on one machine do not sign each other's people out.
 */
import type { Request, Response } from 'express';

const nameOf = ({ socket }: Request, secure: boolean): string =>
  `${secure ? '__Host-' : ''}waxwing-${socket.localPort ?? 0}`;

export function cookieIn(request: Request, secure: boolean): string | null {
  const name = `${nameOf(request, secure)}=`;
  const found = (request.headers.cookie ?? '').split(';').map((part) => part.trim());
  return found.find((part) => part.startsWith(name))?.slice(name.length) ?? null;
}

const options = (secure: boolean) => ({ path: '/', httpOnly: true, secure, sameSite: 'strict' as const });

export const giveCookie = (response: Response, value: string, secure: boolean, maxAge: number): void => {
  response.cookie(nameOf(response.req, secure), value, { ...options(secure), maxAge });
};

export const dropCookie = (response: Response, secure: boolean): void => {
  response.clearCookie(nameOf(response.req, secure), options(secure));
};
