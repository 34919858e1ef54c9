import { Controller, Get, Header, Query, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { auditCsv } from '@waxwing/core/formats';
import type { Response } from 'express';

import { Audited, ForOwner } from './allowed.js';
import { AuditService } from './audit.service.js';
import { AuditQuery } from './door.dto.js';

@ApiTags('door')
@Controller()
export class AuditController {
  constructor(private readonly audit: AuditService) {}

  @Get('audit')
  @ForOwner()
  @ApiOperation({ summary: 'Who came in, and who read, changed, exported or erased what of whom; latest first' })
  async list(@Query() { limit, cursor, ...filter }: AuditQuery) {
    return this.audit.list(filter, limit, cursor);
  }

  @Get('audit/whole')
  @ForOwner()
  @ApiOperation({ summary: 'Whether every entry is as it was written; else the place of the first that is not' })
  async whole() {
    return { brokenAt: await this.audit.brokenAt() };
  }

  @Get('audit.csv')
  @ForOwner()
  @Audited('audit-exported', 'all of it')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @ApiOperation({ summary: 'All of it as CSV' })
  async csv(@Res({ passthrough: true }) response: Response) {
    response.attachment('waxwing-audit.csv');
    return auditCsv(await this.audit.all());
  }
}
