import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';

import { About, Audited, ForTrainers } from '../door/allowed.js';
import { AN_ID } from '../problems/an-id.js';
import { StillsService } from './stills.service.js';

@ApiTags('clients')
@Controller('clients/:clientId/stills')
export class StillsController {
  constructor(private readonly stills: StillsService) {}

  @Get()
  @ForTrainers()
  @About({ client: ['params.clientId'] })
  @Audited('client-read', 'pictures')
  @ApiOperation({ summary: 'Pictures kept of a client’s clips, latest first' })
  async list(@Param('clientId', AN_ID) clientId: string) {
    return { items: await this.stills.list(clientId) };
  }

  @Post()
  @ForTrainers()
  @About({ client: ['params.clientId'] })
  @Audited('client-changed', 'pictures')
  @ApiOperation({ summary: 'Keep a picture of a clip; 422 when the client has not agreed to be filmed' })
  add(@Param('clientId', AN_ID) clientId: string, @Body() body: unknown) {
    return this.stills.add(clientId, body);
  }

  @Delete(':id')
  @ForTrainers()
  @About({ client: ['params.clientId'] })
  @Audited('client-changed', 'pictures')
  @HttpCode(204)
  @ApiOperation({ summary: 'Let a picture go for good' })
  remove(@Param('clientId', AN_ID) clientId: string, @Param('id', AN_ID) id: string) {
    this.stills.remove(clientId, id);
  }
}
