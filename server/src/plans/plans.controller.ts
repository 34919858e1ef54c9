import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  Patch,
  Post,
  Query,
  Res,
  StreamableFile,
} from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { planFor, type Visitor } from '@waxwing/core/door';
import type { Response } from 'express';

import { About, Audited, ForEverybody, ForTrainers, Who } from '../door/allowed.js';
import { AN_ID } from '../problems/an-id.js';
import { OutboxService } from './outbox.service.js';
import { EditPlanDto, ListPlansQuery, SavePlanDto, SendSheetDto, SheetQuery } from './plans.dto.js';
import { PlansService } from './plans.service.js';
import { SheetsService } from './sheets.service.js';

@ApiTags('plans')
@Controller('plans')
export class PlansController {
  constructor(
    private readonly plans: PlansService,
    private readonly sheets: SheetsService,
    private readonly outbox: OutboxService,
  ) {}

  @Get()
  @ForEverybody()
  @About({ client: ['query.clientId'] })
  @ApiOperation({ summary: 'Plans by their time, or templates; latest first' })
  list(@Who() visitor: Visitor, @Query() query: ListPlansQuery) {
    return this.plans.list(query, visitor);
  }

  @Post()
  @ForTrainers()
  @About({ plan: ['body.id'], client: ['body.plan.clientIds'] })
  @ApiOperation({ summary: 'Keep a plan' })
  create(@Body() { plan, id }: SavePlanDto) {
    return this.plans.create(plan, id);
  }

  @Get(':id')
  @ForEverybody()
  @About({ plan: ['params.id'] })
  @Audited('client-read', 'plan')
  @ApiOperation({ summary: 'A plan' })
  async read(@Who() visitor: Visitor, @Param('id', AN_ID) id: string) {
    return planFor(visitor, await this.plans.read(id));
  }

  @Patch(':id')
  @ForTrainers()
  @About({ plan: ['params.id'], client: ['body.plan.clientIds'] })
  @ApiOperation({ summary: 'Change a plan; 409 when the version is stale' })
  edit(@Param('id', AN_ID) id: string, @Body() { version, plan }: EditPlanDto) {
    return this.plans.edit(id, version, plan);
  }

  @Delete(':id')
  @ForTrainers()
  @About({ plan: ['params.id'] })
  @HttpCode(204)
  @ApiOperation({ summary: 'Delete a plan' })
  remove(@Param('id', AN_ID) id: string) {
    return this.plans.remove(id);
  }

  @Get(':id/sheet')
  @ForTrainers()
  @About({ plan: ['params.id'], client: ['query.clientId'] })
  @Audited('client-read', 'sheet')
  @ApiOperation({ summary: "A client's sheet of a plan" })
  async sheet(@Param('id', AN_ID) id: string, @Query() { clientId }: SheetQuery) {
    return this.sheets.sheet(await this.plans.read(id), clientId);
  }

  @Get(':id/sheet.md')
  @ForTrainers()
  @About({ plan: ['params.id'], client: ['query.clientId'] })
  @Audited('client-exported', 'sheet')
  @Header('Content-Type', 'text/markdown; charset=utf-8')
  @ApiOperation({ summary: 'The sheet as Markdown' })
  async markdown(@Param('id', AN_ID) id: string, @Query() { clientId }: SheetQuery) {
    return this.sheets.markdown(await this.sheets.sheet(await this.plans.read(id), clientId));
  }

  @Get(':id/sheet.pdf')
  @ForTrainers()
  @About({ plan: ['params.id'], client: ['query.clientId'] })
  @Audited('client-exported', 'sheet')
  @ApiOperation({ summary: 'The sheet as PDF, on A4 or Letter' })
  async pdf(@Param('id', AN_ID) id: string, @Query() { clientId, paper }: SheetQuery) {
    const bytes = await this.sheets.pdf(await this.sheets.sheet(await this.plans.read(id), clientId), paper);
    return new StreamableFile(bytes, { type: 'application/pdf', disposition: 'inline; filename="sheet.pdf"' });
  }

  @Get(':id/calendar.ics')
  @ForTrainers()
  @About({ plan: ['params.id'] })
  @Header('Content-Type', 'text/calendar; charset=utf-8')
  @ApiOperation({ summary: 'The date of a plan as a calendar file; 422 when it has none' })
  async calendar(@Param('id', AN_ID) id: string, @Res({ passthrough: true }) response: Response) {
    response.attachment('session.ics');
    return this.sheets.calendar(await this.plans.read(id));
  }

  @Post(':id/send')
  @ForTrainers()
  @About({ plan: ['params.id'], client: ['body.clientId'] })
  @Audited('client-exported', 'sheet')
  @ApiOperation({ summary: 'Write the sheet as a mail message into the outbox folder' })
  async send(@Param('id', AN_ID) id: string, @Body() { clientId, to }: SendSheetDto) {
    return this.outbox.send(await this.plans.read(id), clientId, to);
  }
}
