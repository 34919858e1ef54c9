import { ApiPropertyOptional } from '@nestjs/swagger';
import type { Body } from '@waxwing/core/api';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
  Min,
} from 'class-validator';

import { PageQuery } from '../problems/cursor.js';
import { IsTime } from '../problems/text.js';

export class StartSessionDto {
  @IsOptional()
  @IsUUID()
  id?: string;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(4)
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  clientIds: string[];

  @IsOptional()
  @IsUUID()
  planId?: string;

  @IsOptional()
  @IsObject()
  programme?: object;

  @IsOptional()
  @IsBoolean()
  again?: boolean;

  @IsString()
  @MaxLength(40)
  startedAt: string;
}

export class LaterEventsQuery {
  @ApiPropertyOptional({ minimum: 0, default: 0, description: '`place` of the answer before' })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  after = 0;
}

/** Events as objects; each is checked whole by the event schema of core and refused by its place in the list. */
export class AppendEventsDto {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  @IsObject({ each: true })
  events: object[];
}

export class MissingEventsDto implements Body<'POST /sessions/{id}/events/missing'> {
  @IsArray()
  @ArrayMaxSize(2000)
  @IsUUID(undefined, { each: true })
  ids: string[];
}

export class ListSessionsQuery extends PageQuery {
  @ApiPropertyOptional()
  @IsOptional()
  @IsUUID()
  clientId?: string;

  @ApiPropertyOptional({ enum: ['open', 'finished'] })
  @IsOptional()
  @IsIn(['open', 'finished'])
  status?: 'open' | 'finished';

  @ApiPropertyOptional({ description: 'Only sessions that began at this time or later' })
  @IsOptional()
  @IsTime()
  from?: string;

  @ApiPropertyOptional({ description: 'Only sessions that began before this time' })
  @IsOptional()
  @IsTime()
  to?: string;
}
