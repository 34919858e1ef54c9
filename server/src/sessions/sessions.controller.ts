import { Body, Controller, Get, HttpCode, Param, ParseUUIDPipe, Post, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { RecordService } from './record.service.js';
import { AppendEventsDto, ListSessionsQuery, StartSessionDto } from './sessions.dto.js';
import { SessionsService } from './sessions.service.js';

@ApiTags('sessions')
@Controller()
export class SessionsController {
  constructor(
    private readonly sessions: SessionsService,
    private readonly records: RecordService,
  ) {}

  @Get('sessions')
  @ApiOperation({ summary: 'Sessions, latest first' })
  list(@Query() query: ListSessionsQuery) {
    return this.sessions.list(query);
  }

  @Post('sessions')
  @ApiOperation({ summary: 'Start a session with one to four clients' })
  start(@Body() fields: StartSessionDto) {
    return this.sessions.start(fields);
  }

  @Get('sessions/:id')
  @ApiOperation({ summary: 'A session: its events and the state they make' })
  read(@Param('id', ParseUUIDPipe) id: string) {
    return this.sessions.read(id);
  }

  @Post('sessions/:id/events')
  @HttpCode(200)
  @ApiOperation({
    summary: 'Append events; one that is already stored is not stored again. `session-finished` ends the session',
  })
  append(@Param('id', ParseUUIDPipe) id: string, @Body() { events }: AppendEventsDto) {
    return this.sessions.append(id, events);
  }

  @Get('clients/:id/record')
  @ApiOperation({ summary: 'What the sessions so far teach about a client' })
  record(@Param('id', ParseUUIDPipe) id: string) {
    return this.records.of(id);
  }
}
