import { ApiProperty } from '@nestjs/swagger';
import type { Body } from '@waxwing/core/api';
import { IsUUID } from 'class-validator';

import { IsCalendarDay, IsLine } from '../problems/text.js';

export class RemoveClientDto implements Body<'DELETE /clients/{id}'> {
  @IsLine(80)
  name: string;
}

/** The day of an address. */
export class DayParam {
  @ApiProperty({ description: 'YYYY-MM-DD' })
  @IsCalendarDay()
  day: string;

  @ApiProperty()
  @IsUUID()
  id: string;
}
