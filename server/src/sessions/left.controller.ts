import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Visitor } from '@waxwing/core/door';

import { AtDesk, ForAnybody, ForOwner, FromDevice, TheEntry, Who } from '../door/allowed.js';
import type { Entry } from '../door/door.service.js';
import { AN_ID } from '../problems/an-id.js';
import { ProblemException } from '../problems/problem.js';
import { LeftService } from './left.service.js';
import { AppendEventsDto } from './sessions.dto.js';

@ApiTags('door')
@Controller()
export class LeftController {
  constructor(private readonly left: LeftService) {}

  @Post('door/left')
  @HttpCode(204)
  @ForAnybody()
  @ApiOperation({
    summary: 'As a device that was shut out: leave the taps that were not sent, for the owner to decide on',
  })
  leave(@TheEntry() { leaver }: Entry, @Body() { events }: AppendEventsDto) {
    if (!leaver) throw new ProblemException(401, 'Only a device that was shut out leaves its taps here.');
    this.left.leave(leaver, events);
  }

  @Get('left')
  @ForOwner()
  @AtDesk()
  @ApiOperation({ summary: 'What devices that were shut out had not sent' })
  async list() {
    return { items: await this.left.list() };
  }

  @Post('left/:id/take')
  @HttpCode(200)
  @ForOwner()
  @AtDesk()
  @ApiOperation({ summary: 'Take the taps of such a device in; what does not fit stays, and the answer says why' })
  take(@Who() visitor: Visitor, @FromDevice() device: string, @Param('id', AN_ID) id: string) {
    return this.left.take(id, visitor, device);
  }

  @Delete('left/:id')
  @HttpCode(204)
  @ForOwner()
  @AtDesk()
  @ApiOperation({ summary: 'Throw them away' })
  async throwAway(@Who() visitor: Visitor, @FromDevice() device: string, @Param('id', AN_ID) id: string) {
    await this.left.throwAway(id, visitor, device);
  }
}
