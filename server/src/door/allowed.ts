/** What a route says of who may use it. A route that says nothing is for nobody. */
import { createParamDecorator, type ExecutionContext, SetMetadata } from '@nestjs/common';
import { type Role, ROLES, type Visitor } from '@waxwing/core/door';
import type { Request } from 'express';

import { ProblemException } from '../problems/problem.js';
import type { Entry } from './door.service.js';
import { browserOf } from './where-from.js';

export const ROUTE_ROLES = Symbol('roles');
export const ROUTE_CONCERNS = Symbol('concerns');
export const ROUTE_DESK = Symbol('desk');
export const ROUTE_AUDIT = Symbol('audit');

/** Without being signed in. */
export const ForAnybody = () => SetMetadata(ROUTE_ROLES, 'anybody');
/** Whoever works here. */
export const ForEverybody = () => SetMetadata(ROUTE_ROLES, ROLES);
/** Those who train somebody: not an assistant, and not a tablet on the floor. */
export const ForTrainers = () => SetMetadata(ROUTE_ROLES, ['owner', 'trainer'] satisfies Role[]);
export const ForOwner = () => SetMetadata(ROUTE_ROLES, ['owner'] satisfies Role[]);

/** Not on a tablet of the floor, whoever it belongs to. */
export const AtDesk = () => SetMetadata(ROUTE_DESK, true);

/** What a request is about, and where in it: a path such as `params.id`, with one id or a list of them. */
export type Concerns = Partial<Record<'client' | 'session' | 'plan' | 'message', readonly string[]>>;

/** Whoever does not see all that a request is about is told that it is not there. */
export const About = (concerns: Concerns) => SetMetadata(ROUTE_CONCERNS, concerns);

export interface Audits {
  action: 'client-read' | 'client-changed' | 'client-exported' | 'client-restored' | 'audit-exported';
  /** What was read or changed, where the names of the body's fields do not say it. */
  what?: string;
}

/** Noted in the audit when it went well. */
export const Audited = (action: Audits['action'], what?: string) => SetMetadata(ROUTE_AUDIT, { action, what });

/** The ids that a request is about, by their kind. */
export type Subjects = Partial<Record<keyof Concerns, readonly string[]>>;

const subjects = new WeakMap<Request, Subjects>();

export const setSubjects = (request: Request, about: Subjects): void => {
  subjects.set(request, about);
};

export const subjectsOf = (request: Request): Subjects => subjects.get(request) ?? {};

const entries = new WeakMap<Request, Entry>();

export const setEntry = (request: Request, entry: Entry): void => {
  entries.set(request, entry);
};

/** @throws Error outside of a route that the guard has let somebody into */
export function entryOf(request: Request): Entry {
  const entry = entries.get(request);
  if (!entry) throw new Error('a request came past the door');
  return entry;
}

/** Whoever is in. @throws 401 saying what they have to do first */
export function letInto({ visitor, locked }: Entry): Visitor {
  if (locked) throw new ProblemException(401, 'Type the PIN of this tablet first.');
  if (!visitor) throw new ProblemException(401, 'Sign in first.');
  return visitor;
}

/** @throws 401 */
export const visitorIn = (request: Request): Visitor => letInto(entryOf(request));

/** What the device is called in the audit. */
export const deviceOf = (request: Request): string => {
  const { session, from } = entryOf(request);
  return session?.name ?? (from.here ? 'this machine' : browserOf(request));
};

const requestOf = (context: ExecutionContext): Request => context.switchToHttp().getRequest<Request>();

/** Who asks. */
export const Who = createParamDecorator((_: unknown, context: ExecutionContext) => visitorIn(requestOf(context)));
/** From what device. */
export const FromDevice = createParamDecorator((_: unknown, context: ExecutionContext) => deviceOf(requestOf(context)));
/** All that is known of who asks. */
export const TheEntry = createParamDecorator((_: unknown, context: ExecutionContext) => entryOf(requestOf(context)));
