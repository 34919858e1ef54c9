import { Controller, Delete, Get, Header, Param, Post, Query, Req, StreamableFile } from '@nestjs/common';
import { ApiConsumes, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';

import { ForEverybody, ForTrainers } from '../door/allowed.js';
import { CaptionQuery } from './movements.dto.js';
import { PicturesService } from './pictures.service.js';

@ApiTags('movements')
@Controller('movements/:movementId/pictures')
export class PicturesController {
  constructor(private readonly pictures: PicturesService) {}

  @Get()
  @ForEverybody()
  @ApiOperation({ summary: 'The pictures of a movement' })
  list(@Param('movementId') movementId: string) {
    return this.pictures.list(movementId);
  }

  @Post()
  @ForEverybody()
  @ApiConsumes('application/octet-stream')
  @ApiOperation({ summary: 'Attach a PNG, JPEG or WebP picture of at most 5 MB, sent as the body' })
  add(@Param('movementId') movementId: string, @Query() { caption = '' }: CaptionQuery, @Req() request: Request) {
    const body: unknown = request.body;
    return this.pictures.add(movementId, Buffer.isBuffer(body) ? body : Buffer.alloc(0), caption);
  }

  @Get(':id')
  @ForEverybody()
  @Header('Content-Security-Policy', "default-src 'none'")
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  @ApiOperation({ summary: 'One picture' })
  async read(@Param('movementId') movementId: string, @Param('id') id: string) {
    const { type, bytes } = await this.pictures.read(movementId, id);
    return new StreamableFile(bytes, { type });
  }

  @Delete(':id')
  @ForTrainers()
  @ApiOperation({ summary: 'Take a picture away' })
  remove(@Param('movementId') movementId: string, @Param('id') id: string) {
    return this.pictures.remove(movementId, id);
  }
}
