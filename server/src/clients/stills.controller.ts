import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { StillsService } from './stills.service.js';

@ApiTags('clients')
@Controller('clients/:clientId/stills')
export class StillsController {
  constructor(private readonly stills: StillsService) {}

  @Get()
  @ApiOperation({ summary: 'Pictures kept of a client’s clips, latest first' })
  async list(@Param('clientId', ParseUUIDPipe) clientId: string) {
    return { items: await this.stills.list(clientId) };
  }

  @Post()
  @ApiOperation({ summary: 'Keep a picture of a clip; 422 when the client has not agreed to be filmed' })
  add(@Param('clientId', ParseUUIDPipe) clientId: string, @Body() body: unknown) {
    return this.stills.add(clientId, body);
  }

  @Delete(':id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Let a picture go for good' })
  remove(@Param('clientId', ParseUUIDPipe) clientId: string, @Param('id', ParseUUIDPipe) id: string) {
    this.stills.remove(clientId, id);
  }
}
