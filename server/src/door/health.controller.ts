import { Controller, Get } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { DataSource } from 'typeorm';

import { ForAnybody } from './allowed.js';

@ApiTags('door')
@Controller('health')
export class HealthController {
  constructor(private readonly database: DataSource) {}

  @Get()
  @ForAnybody()
  @ApiOperation({ summary: 'For a monitor: whether the server and its database answer' })
  async read() {
    await this.database.query('SELECT 1');
    return { ok: true };
  }
}
