/** The cookie that somebody is signed in by. Over the network its name keeps it to this origin and to HTTPS (RFC 6265bis). */
import type { Request, Response } from 'express';

const nameOf = (secure: boolean): string => (secure ? '__Host-waxwing' : 'waxwing');

export function cookieIn({ headers }: Request, secure: boolean): string | null {
  const name = `${nameOf(secure)}=`;
  const found = (headers.cookie ?? '').split(';').map((part) => part.trim());
  return found.find((part) => part.startsWith(name))?.slice(name.length) ?? null;
}

const options = (secure: boolean) => ({ path: '/', httpOnly: true, secure, sameSite: 'strict' as const });

export const giveCookie = (response: Response, value: string, secure: boolean, maxAge: number): void => {
  response.cookie(nameOf(secure), value, { ...options(secure), maxAge });
};

export const dropCookie = (response: Response, secure: boolean): void => {
  response.clearCookie(nameOf(secure), options(secure));
};
