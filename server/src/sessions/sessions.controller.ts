import { Body, Controller, Get, Header, HttpCode, Param, Post, Query, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { eventsFor, recordFor, viewFor, type Visitor } from '@waxwing/core/door';
import { setsCsv } from '@waxwing/core/formats';
import type { Response } from 'express';

import { About, Audited, ForEverybody, ForTrainers, TheEntry, Who } from '../door/allowed.js';
import type { Entry } from '../door/door.service.js';
import { AN_ID } from '../problems/an-id.js';
import { PageQuery } from '../problems/cursor.js';
import { EventsService } from './events.service.js';
import { RecordService } from './record.service.js';
import {
  AppendEventsDto,
  LaterEventsQuery,
  ListSessionsQuery,
  MissingEventsDto,
  StartSessionDto,
} from './sessions.dto.js';
import { SessionsService } from './sessions.service.js';
import { SetsService } from './sets.service.js';

@ApiTags('sessions')
@Controller()
export class SessionsController {
  constructor(
    private readonly sessions: SessionsService,
    private readonly events: EventsService,
    private readonly records: RecordService,
    private readonly setLists: SetsService,
  ) {}

  @Get('sessions')
  @ForEverybody()
  @About({ client: ['query.clientId'] })
  @ApiOperation({ summary: 'Sessions, latest first' })
  list(@Who() visitor: Visitor, @TheEntry() { session }: Entry, @Query() query: ListSessionsQuery) {
    return this.sessions.list(query, visitor, session?.tablet === 1);
  }

  @Post('sessions')
  @ForEverybody()
  @About({ session: ['body.id'], client: ['body.clientIds'], plan: ['body.planId'] })
  @ApiOperation({ summary: 'Start a session with one to four clients' })
  async start(@Who() visitor: Visitor, @Body() fields: StartSessionDto) {
    return viewFor(visitor, await this.sessions.start(fields));
  }

  @Get('sessions/:id')
  @ForEverybody()
  @About({ session: ['params.id'] })
  @Audited('client-read', 'session')
  @ApiOperation({ summary: 'A session, with the first of its events; the rest by `place`' })
  async read(@Who() visitor: Visitor, @Param('id', AN_ID) id: string) {
    return viewFor(visitor, await this.sessions.read(id));
  }

  @Get('sessions/:id/events')
  @ForEverybody()
  @About({ session: ['params.id'] })
  @Audited('client-read', 'session')
  @ApiOperation({ summary: 'Events that came after a place: what another device has sent meanwhile' })
  async later(@Who() visitor: Visitor, @Param('id', AN_ID) id: string, @Query() { after }: LaterEventsQuery) {
    await this.sessions.session(id);
    return eventsFor(visitor, await this.events.after(id, after));
  }

  @Post('sessions/:id/events/missing')
  @ForEverybody()
  @About({ session: ['params.id'] })
  @HttpCode(200)
  @ApiOperation({ summary: 'Which of some events are not stored here: a device asks before it says that all is saved' })
  async missing(@Param('id', AN_ID) id: string, @Body() { ids }: MissingEventsDto) {
    await this.sessions.session(id);
    return { missing: await this.events.missing(id, ids) };
  }

  @Get('sessions/:id/sets')
  @ForEverybody()
  @About({ session: ['params.id'] })
  @ApiOperation({ summary: 'Every set of a session as a row' })
  sets(@Param('id', AN_ID) id: string) {
    return this.setLists.ofSession(id);
  }

  @Get('sessions/:id/sets.csv')
  @ForTrainers()
  @About({ session: ['params.id'] })
  @Audited('client-exported', 'sets')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @ApiOperation({ summary: 'The same as CSV' })
  async setsCsv(@Param('id', AN_ID) id: string, @Res({ passthrough: true }) response: Response) {
    response.attachment('waxwing-sets.csv');
    return setsCsv(await this.setLists.ofSession(id));
  }

  @Get('clients/:id/sets')
  @ForEverybody()
  @About({ client: ['params.id'] })
  @ApiOperation({ summary: 'Sets of a client, latest first; a page has at least `limit`, because sessions stay whole' })
  setsOfClient(@Param('id', AN_ID) id: string, @Query() { limit, cursor }: PageQuery) {
    return this.setLists.ofClient(id, limit, cursor);
  }

  @Get('clients/:id/sets.csv')
  @ForTrainers()
  @About({ client: ['params.id'] })
  @Audited('client-exported', 'sets')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @ApiOperation({ summary: 'All of them as CSV' })
  async setsOfClientCsv(@Param('id', AN_ID) id: string, @Res({ passthrough: true }) response: Response) {
    response.attachment('waxwing-sets.csv');
    return setsCsv(await this.setLists.allOfClient(id));
  }

  @Post('sessions/:id/events')
  @ForEverybody()
  @About({ session: ['params.id'] })
  @HttpCode(200)
  @ApiOperation({
    summary: 'Append events; one that is already stored is not stored again. `session-finished` ends the session',
  })
  append(@Who() visitor: Visitor, @Param('id', AN_ID) id: string, @Body() { events }: AppendEventsDto) {
    return this.events.append(id, events, visitor.id);
  }

  @Get('clients/:id/record')
  @ForEverybody()
  @About({ client: ['params.id'] })
  @Audited('client-read', 'record')
  @ApiOperation({ summary: 'What the sessions so far teach about a client' })
  async record(@Who() visitor: Visitor, @Param('id', AN_ID) id: string) {
    return recordFor(visitor, await this.records.of(id));
  }
}
