/** Notes in the audit what a route says is to be noted, when it went well and before the answer goes out. */
import { type CallHandler, type ExecutionContext, Injectable, type NestInterceptor } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Client } from '@waxwing/core/client';
import { healthNotedIn } from '@waxwing/core/door';
import type { Request } from 'express';
import { type Observable, tap } from 'rxjs';

import { type Audits, deviceOf, ROUTE_AUDIT, visitorIn } from './allowed.js';
import { AuditService } from './audit.service.js';

@Injectable()
export class AuditInterceptor implements NestInterceptor {
  constructor(
    private readonly reflector: Reflector,
    private readonly audit: AuditService,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const audits = this.reflector.get<Audits | undefined>(ROUTE_AUDIT, context.getHandler());
    if (!audits) return next.handle();
    const request = context.switchToHttp().getRequest<Request>();
    return next.handle().pipe(
      tap((answer) => {
        const fields = audits.what === undefined ? fieldsOf(audits.action, request, answer) : [audits.what];
        // A client of whose health nothing is noted.
        if (audits.action === 'client-read' && fields.length === 0) return;
        for (const clientId of clientsOf(request, answer))
          this.audit[audits.action === 'client-read' ? 'noteRead' : 'note']({
            visitor: visitorIn(request),
            device: deviceOf(request),
            action: audits.action,
            ...(clientId === null ? {} : { clientId }),
            fields,
          });
      }),
    );
  }
}

/** Whose data it was: the client of the address, or those of the answer. */
function clientsOf({ params, path }: Request, answer: unknown): (string | null)[] {
  const id = params.clientId ?? (path.startsWith('/api/clients/') ? params.id : undefined);
  if (typeof id === 'string') return [id];
  if (typeof answer !== 'object' || answer === null) return [null];
  if ('clients' in answer) return (answer.clients as { id: string }[]).map((client) => client.id);
  return ['id' in answer && typeof answer.id === 'string' ? answer.id : null];
}

/** The names of what was sent, or of what was noted in what was read. */
function fieldsOf(action: Audits['action'], { body }: Request, answer: unknown): string[] {
  if (action === 'client-read') return healthNotedIn(answer as Client);
  return typeof body === 'object' && body !== null && !Buffer.isBuffer(body)
    ? Object.keys(body as object).filter((field) => field !== 'version')
    : [];
}
