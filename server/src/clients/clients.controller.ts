import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Patch, Post, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { ClientFilesService } from './client-files.service.js';
import { CreateClientDto, EditClientDto, RemoveClientDto } from './clients.dto.js';
import { ClientsService } from './clients.service.js';

@ApiTags('clients')
@Controller('clients')
export class ClientsController {
  constructor(
    private readonly clients: ClientsService,
    private readonly files: ClientFilesService,
  ) {}

  @Get()
  @ApiOperation({ summary: 'All clients by name, without health notes' })
  async list() {
    return { items: await this.clients.list() };
  }

  @Get(':id')
  @ApiOperation({ summary: 'One client, health note included' })
  read(@Param('id', ParseUUIDPipe) id: string) {
    return this.clients.read(id);
  }

  @Post()
  @ApiOperation({ summary: 'Add a client' })
  create(@Body() fields: CreateClientDto) {
    return this.clients.create(fields);
  }

  @Patch(':id')
  @ApiOperation({ summary: 'Change a client; 409 when the version is stale' })
  edit(@Param('id', ParseUUIDPipe) id: string, @Body() fields: EditClientDto) {
    return this.clients.edit(id, fields);
  }

  @Delete(':id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Delete a client for good; their name is typed. What others did stays' })
  remove(@Param('id', ParseUUIDPipe) id: string, @Body() { name }: RemoveClientDto) {
    return this.files.remove(id, name);
  }

  @Get(':id/file')
  @ApiOperation({ summary: 'All data of one client, health note included' })
  async file(@Param('id', ParseUUIDPipe) id: string, @Res({ passthrough: true }) response: Response) {
    const file = await this.files.file(id);
    response.attachment(`${file.client.name}.json`);
    return file;
  }

  @Post('file')
  @ApiConsumes('application/octet-stream')
  @ApiOperation({ summary: 'Bring a client back from such a file, sent as the body, all or nothing' })
  restore(@Req() request: Request) {
    const body: unknown = request.body;
    return this.files.restore(Buffer.isBuffer(body) ? body : Buffer.alloc(0));
  }
}
