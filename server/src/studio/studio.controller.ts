import { Body, Controller, Get, Patch, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { type StudioChange, studioChangeSchema } from '@waxwing/core/client';
import type { Visitor } from '@waxwing/core/door';

import { ForEverybody, ForOwner, Who } from '../door/allowed.js';
import { document } from '../problems/document.js';
import { StudioService } from './studio.service.js';

@ApiTags('studio')
@Controller('studio')
export class StudioController {
  constructor(private readonly studio: StudioService) {}

  @Get()
  @ForEverybody()
  @ApiOperation({ summary: 'Name, trainer, kit, and how much there is' })
  read(@Who() visitor: Visitor) {
    return this.studio.readFor(visitor);
  }

  @Patch()
  @ForOwner()
  @ApiOperation({ summary: 'Change name, trainer or kit; 409 when the version is stale' })
  edit(@Body(document(studioChangeSchema)) fields: StudioChange) {
    return this.studio.edit(fields);
  }

  @Get('keeping')
  @ForOwner()
  @ApiOperation({ summary: 'How the data is kept: room on the disk, backups, and what is damaged' })
  keeping() {
    return this.studio.keeping();
  }

  @Post('demo')
  @ForOwner()
  @ApiOperation({ summary: 'Fill an empty place with the demo studio' })
  demo() {
    return this.studio.becomeDemo(new Date());
  }
}
