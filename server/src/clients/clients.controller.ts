import { Body, Controller, Get, Param, ParseUUIDPipe, Post, Patch } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { CreateClientDto, EditClientDto } from './clients.dto.js';
import { ClientsService } from './clients.service.js';

@ApiTags('clients')
@Controller('clients')
export class ClientsController {
  constructor(private readonly clients: ClientsService) {}

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
}
