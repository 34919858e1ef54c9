import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  type ClientChange,
  clientChangeSchema,
  clientOnDay,
  type NewClient,
  newClientSchema,
} from '@waxwing/core/client';
import { onDayFor, type Visitor } from '@waxwing/core/door';
import type { Request, Response } from 'express';

import { About, Audited, ForEverybody, ForOwner, ForTrainers, FromDevice, Who } from '../door/allowed.js';
import { LibraryService } from '../movements/library.service.js';
import { AN_ID } from '../problems/an-id.js';
import { document } from '../problems/document.js';
import { ClientFilesService } from './client-files.service.js';
import { DayParam, RemoveClientDto } from './clients.dto.js';
import { ClientsService } from './clients.service.js';

@ApiTags('clients')
@Controller('clients')
export class ClientsController {
  constructor(
    private readonly clients: ClientsService,
    private readonly files: ClientFilesService,
    private readonly library: LibraryService,
  ) {}

  @Get()
  @ForEverybody()
  @ApiOperation({ summary: 'All clients by name, without health notes' })
  async list(@Who() visitor: Visitor) {
    return { items: await this.clients.list(visitor) };
  }

  @Get(':id')
  @ForTrainers()
  @About({ client: ['params.id'] })
  @Audited('client-read')
  @ApiOperation({ summary: 'One client, health note included' })
  read(@Param('id', AN_ID) id: string) {
    return this.clients.read(id);
  }

  @Get(':id/on/:day')
  @ForEverybody()
  @About({ client: ['params.id'] })
  @Audited('client-read')
  @ApiOperation({
    summary: 'A client as they are on one day: what a session needs to know of them, and nothing private',
  })
  async onDay(@Who() visitor: Visitor, @Param('id', AN_ID) id: string, @Param() { day }: DayParam) {
    return onDayFor(visitor, clientOnDay(await this.clients.read(id), day), this.library.all());
  }

  @Post()
  @ForTrainers()
  @Audited('client-changed')
  @ApiOperation({ summary: 'Add a client' })
  create(@Who() visitor: Visitor, @Body(document(newClientSchema)) fields: NewClient) {
    return this.clients.create(fields, visitor);
  }

  @Patch(':id')
  @ForTrainers()
  @About({ client: ['params.id'] })
  @Audited('client-changed')
  @ApiOperation({ summary: 'Change a client; 409 when the version is stale' })
  edit(@Param('id', AN_ID) id: string, @Body(document(clientChangeSchema)) fields: ClientChange) {
    return this.clients.edit(id, fields);
  }

  @Delete(':id')
  @ForTrainers()
  @About({ client: ['params.id'] })
  @HttpCode(204)
  @ApiOperation({ summary: 'Delete a client for good; their name is typed. What others did stays' })
  remove(
    @Who() visitor: Visitor,
    @FromDevice() device: string,
    @Param('id', AN_ID) id: string,
    @Body() { name }: RemoveClientDto,
  ) {
    return this.files.remove(id, name, { visitor, device });
  }

  @Get(':id/file')
  @ForTrainers()
  @About({ client: ['params.id'] })
  @Audited('client-exported', 'all')
  @ApiOperation({ summary: 'All data of one client, health note included' })
  async file(@Param('id', AN_ID) id: string, @Res({ passthrough: true }) response: Response) {
    const file = await this.files.file(id);
    response.attachment(`${file.client.name}.json`);
    return file;
  }

  @Post('file')
  @ForOwner()
  @Audited('client-restored', 'all')
  @ApiConsumes('application/octet-stream')
  @ApiOperation({ summary: 'Bring a client back from such a file, sent as the body, all or nothing' })
  restore(@Req() request: Request) {
    const body: unknown = request.body;
    return this.files.restore(Buffer.isBuffer(body) ? body : Buffer.alloc(0));
  }
}
