/** Notes in the audit what a route says is to be noted, when it went well and before the answer goes out. */
import { type CallHandler, type ExecutionContext, Injectable, type NestInterceptor } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Client } from '@waxwing/core/client';
import { healthNotedIn, maySeeHealth } from '@waxwing/core/door';
import type { Request } from 'express';
import { concatMap, type Observable } from 'rxjs';

import { AccessService } from './access.service.js';
import { type Audits, deviceOf, ROUTE_AUDIT, subjectsOf, visitorIn } from './allowed.js';
import { AuditService } from './audit.service.js';

@Injectable()
export class AuditInterceptor implements NestInterceptor {
  constructor(
    private readonly reflector: Reflector,
    private readonly audit: AuditService,
    private readonly access: AccessService,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const audits = this.reflector.get<Audits | undefined>(ROUTE_AUDIT, context.getHandler());
    if (!audits) return next.handle();
    const request = context.switchToHttp().getRequest<Request>();
    return next.handle().pipe(concatMap((answer) => this.noted(audits, request, answer)));
  }

  private async noted({ action, what }: Audits, request: Request, answer: unknown): Promise<unknown> {
    const visitor = visitorIn(request);
    const reads = action === 'client-read';
    // Reasons, pain and notes are kept from them: there is nothing that they could have read.
    if (reads && !maySeeHealth(visitor)) return answer;
    const fields = what === undefined ? fieldsOf(action, request, answer) : [what];
    // A client of whose health nothing is noted.
    if (reads && fields.length === 0) return answer;
    const about = await this.access.clientsAbout(subjectsOf(request));
    for (const clientId of about.length > 0 ? about : [newIn(answer)])
      this.audit[reads ? 'noteRead' : 'note']({
        visitor,
        device: deviceOf(request),
        action,
        ...(clientId === null ? {} : { clientId }),
        fields,
      });
    return answer;
  }
}

/** The client that was made by a request; null where it is about nobody. */
const newIn = (answer: unknown): string | null =>
  typeof answer === 'object' && answer !== null && 'id' in answer && typeof answer.id === 'string' ? answer.id : null;

/** The names of what was sent, or of what was noted in what was read. */
function fieldsOf(action: Audits['action'], { body }: Request, answer: unknown): string[] {
  if (action === 'client-read') return healthNotedIn(answer as Client);
  return typeof body === 'object' && body !== null && !Buffer.isBuffer(body)
    ? Object.keys(body as object).filter((field) => field !== 'version')
    : [];
}
