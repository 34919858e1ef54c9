import { Body, Controller, HttpCode, HttpException, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiOperation, ApiProperty, ApiTags } from '@nestjs/swagger';
import type { Body as Sent } from '@waxwing/core/api';
import type { Visitor } from '@waxwing/core/door';
import type { ImportProgress } from '@waxwing/core/formats';
import { ArrayMaxSize, IsArray, IsIn, IsString, MaxLength } from 'class-validator';
import type { Request, Response } from 'express';

import { ForTrainers, Who } from '../door/allowed.js';
import { ImportsService } from './imports.service.js';
import type { ImportKind } from './preparing.js';

class PreviewQuery {
  @ApiProperty({ enum: ['pack', 'csv'] })
  @IsIn(['pack', 'csv'])
  kind: ImportKind;
}

class ApplyDto implements Sent<'POST /imports/{id}/apply'> {
  @IsArray()
  @ArrayMaxSize(20_000)
  @IsString({ each: true })
  @MaxLength(60, { each: true })
  take: string[];
}

@ApiTags('library')
@Controller('imports')
export class ImportsController {
  constructor(private readonly imports: ImportsService) {}

  @Post()
  @ForTrainers()
  @ApiConsumes('application/octet-stream')
  @ApiOperation({ summary: 'What a pack or a CSV list, sent as the body, would do; nothing is changed' })
  preview(@Query() { kind }: PreviewQuery, @Req() request: Request) {
    const body: unknown = request.body;
    return this.imports.preview(kind, Buffer.isBuffer(body) ? body : Buffer.alloc(0));
  }

  @Post(':id/apply')
  @ForTrainers()
  @HttpCode(200)
  @ApiOperation({ summary: 'Takes in what was chosen, all or nothing; answers with a line of JSON for each step' })
  async apply(@Who() visitor: Visitor, @Param('id') id: string, @Body() { take }: ApplyDto, @Res() response: Response) {
    const say = (line: ImportProgress) => {
      if (!response.headersSent) response.type('application/x-ndjson');
      response.write(`${JSON.stringify(line)}\n`);
    };
    const done = await this.imports
      .apply(id, take, visitor.name, (done) => say({ done, total: take.length }))
      .catch((error: unknown) => {
        // Before the first line an error is an ordinary answer; after it, the last line.
        if (!response.headersSent) throw error;
        say({ problem: error instanceof HttpException ? error.message : 'Nothing was taken in. Try again.' });
        return null;
      });
    if (done !== null) say({ finished: done });
    response.end();
  }
}
