/** Stands before every route: lets in whoever it is for, to what they may see, with what they must bring. */
import { type CanActivate, type ExecutionContext, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Role } from '@waxwing/core/door';
import type { Request } from 'express';

import { ProblemException } from '../problems/problem.js';
import { AccessService } from './access.service.js';
import {
  type Concerns,
  entryOf,
  letInto,
  ROUTE_CONCERNS,
  ROUTE_DESK,
  ROUTE_ROLES,
  setSubjects,
  type Subjects,
} from './allowed.js';
import { DoorService } from './door.service.js';

@Injectable()
export class DoorGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly door: DoorService,
    private readonly access: AccessService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<Request>();
    const entry = entryOf(request);
    const of = [context.getHandler(), context.getClass()];
    const roles = this.reflector.getAllAndOverride<'anybody' | readonly Role[] | undefined>(ROUTE_ROLES, of);
    if (roles === 'anybody') return true;
    const visitor = letInto(entry);
    this.door.checkToken(entry, request);
    const desk = this.reflector.getAllAndOverride<boolean | undefined>(ROUTE_DESK, of) === true;
    if (!roles?.includes(visitor.role) || (desk && entry.session?.tablet === 1))
      throw new ProblemException(403, 'This is not for everybody who works here: ask the owner of the studio.');
    // A tablet of the floor reads the floor of today; what it still has to bring may be older.
    const floorOnly = entry.session?.tablet === 1 && request.method === 'GET';
    const concerns = this.reflector.getAllAndOverride<Concerns | undefined>(ROUTE_CONCERNS, of) ?? {};
    const about: Subjects = {};
    for (const [kind, paths] of Object.entries(concerns) as [keyof Concerns, readonly string[]][]) {
      const ids = paths.flatMap((path) => idsAt(request, path));
      about[kind] = ids;
      await this.access.check(visitor, kind, ids);
      if (floorOnly && kind === 'session') await this.access.checkToday(ids);
    }
    setSubjects(request, about);
    return true;
  }
}

/** The ids at a path of a request; what is of another kind is refused by what checks the request. */
function idsAt(request: Request, path: string): string[] {
  let at: unknown = request;
  for (const key of path.split('.'))
    at = typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined;
  const all: unknown[] = Array.isArray(at) ? at : [at];
  return all.filter((one): one is string => typeof one === 'string');
}
