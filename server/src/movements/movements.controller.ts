import { Body, Controller, Get, Header, HttpCode, Param, Patch, Post, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Visitor } from '@waxwing/core/door';
import { type MadeFrom, madeFromSchema } from '@waxwing/core/movement';

import { ForEverybody, Who } from '../door/allowed.js';
import { document } from '../problems/document.js';
import { LibraryService } from './library.service.js';
import { ArchiveMovementDto, ListMovementsQuery } from './movements.dto.js';

@ApiTags('movements')
@Controller('movements')
export class MovementsController {
  constructor(private readonly library: LibraryService) {}

  @Get()
  @ForEverybody()
  @Header('Content-Type', 'application/json; charset=utf-8')
  @ApiOperation({ summary: 'Movements by family and level, or by how well they match a search' })
  list(@Query() query: ListMovementsQuery) {
    return this.library.list(query);
  }

  @Get(':id')
  @ForEverybody()
  @ApiOperation({ summary: 'One movement with its neighbours on the ladder' })
  read(@Param('id') id: string) {
    return this.library.page(id);
  }

  @Post()
  @ForEverybody()
  @ApiOperation({ summary: 'A new movement' })
  create(@Who() { name }: Visitor, @Body() movement: unknown) {
    return this.library.create(movement, name);
  }

  @Get(':id/versions')
  @ForEverybody()
  @ApiOperation({ summary: 'Every saved version, latest first, with what it changed' })
  versions(@Param('id') id: string) {
    return this.library.versions(id);
  }

  @Post(':id/archive')
  @ForEverybody()
  @HttpCode(200)
  @ApiOperation({ summary: 'Take a movement out of the library, or put it back; sessions that used it keep it' })
  archive(@Param('id') id: string, @Body() { version, archived }: ArchiveMovementDto) {
    return this.library.archive(id, version, archived);
  }

  @Patch(':id')
  @ForEverybody()
  @ApiOperation({ summary: 'Change any part; 409 when the version is stale' })
  edit(@Who() { name }: Visitor, @Param('id') id: string, @Body(document(madeFromSchema)) change: MadeFrom) {
    return this.library.edit(id, change, name);
  }
}
