import { Controller, Delete, Get, Header, HttpCode, Param, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Visitor } from '@waxwing/core/door';

import { AtDesk, ForAnybody, ForTrainers, Who } from '../door/allowed.js';
import { FeedService } from './feed.service.js';

@ApiTags('calendar')
@Controller('calendar')
export class FeedController {
  constructor(private readonly feed: FeedService) {}

  @Get()
  @ForTrainers()
  @AtDesk()
  @ApiOperation({ summary: 'Since when there is a link for calendar programs' })
  read(@Who() visitor: Visitor) {
    return this.feed.read(visitor);
  }

  @Post()
  @ForTrainers()
  @AtDesk()
  @ApiOperation({ summary: 'A new link; the one before it ends. Its secret is told this once' })
  make(@Who() visitor: Visitor) {
    return { secret: this.feed.make(visitor) };
  }

  @Delete()
  @HttpCode(204)
  @ForTrainers()
  @AtDesk()
  @ApiOperation({ summary: 'End the link' })
  end(@Who() visitor: Visitor) {
    this.feed.end(visitor);
  }

  @Get(':secret.ics')
  @ForAnybody()
  @Header('Content-Type', 'text/calendar; charset=utf-8')
  @ApiOperation({ summary: 'Planned hours, by the link: names of plans and times, and nobody’s name' })
  calendar(@Param('secret') secret: string) {
    return this.feed.calendar(secret);
  }
}
