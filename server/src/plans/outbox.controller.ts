import { Controller, Delete, Get, HttpCode, Param, StreamableFile } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Visitor } from '@waxwing/core/door';

import { About, Audited, ForTrainers, Who } from '../door/allowed.js';
import { OutboxService } from './outbox.service.js';

@ApiTags('outbox')
@Controller('outbox')
export class OutboxController {
  constructor(private readonly outbox: OutboxService) {}

  @Get()
  @ForTrainers()
  @ApiOperation({ summary: 'Messages that wait to be sent by a mail program' })
  async list(@Who() visitor: Visitor) {
    return { items: await this.outbox.list(visitor) };
  }

  @Get(':name')
  @ForTrainers()
  @About({ message: ['params.name'] })
  @Audited('client-exported', 'mail')
  @ApiOperation({ summary: 'One message as an .eml file' })
  async read(@Param('name') name: string) {
    return new StreamableFile(await this.outbox.read(name), {
      type: 'message/rfc822',
      disposition: 'attachment; filename="sheet.eml"',
    });
  }

  @Delete(':name')
  @ForTrainers()
  @About({ message: ['params.name'] })
  @HttpCode(204)
  @ApiOperation({ summary: 'Take a message away' })
  remove(@Param('name') name: string) {
    return this.outbox.remove(name);
  }
}
