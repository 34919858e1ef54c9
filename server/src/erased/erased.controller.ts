import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Body as Sent } from '@waxwing/core/api';
import { ArrayMaxSize, IsArray, IsUUID } from 'class-validator';
import { DataSource } from 'typeorm';

import { ForEverybody } from '../door/allowed.js';

class ErasedDto implements Sent<'POST /erased'> {
  @IsArray()
  @ArrayMaxSize(2000)
  @IsUUID(undefined, { each: true })
  ids: string[];
}

@ApiTags('clients')
@Controller('erased')
export class ErasedController {
  constructor(private readonly database: DataSource) {}

  @Post()
  @ForEverybody()
  @HttpCode(200)
  @ApiOperation({
    summary: 'Which of some people and sessions were deleted for good: a device then forgets them as well',
  })
  async which(@Body() { ids }: ErasedDto) {
    const rows = await this.database.query<{ id: string }[]>(
      'SELECT id FROM erased WHERE id IN (SELECT value FROM json_each(?))',
      [JSON.stringify(ids)],
    );
    return { erased: rows.map(({ id }) => id) };
  }
}
