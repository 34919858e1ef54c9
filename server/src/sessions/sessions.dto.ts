import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
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
  @ApiPropertyOptional({ description: 'Made by the device, so that a start sent twice is one session' })
  @IsOptional()
  @IsUUID()
  id?: string;

  @ApiProperty({ type: [String], minItems: 1, maxItems: 4 })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(4)
  @ArrayUnique()
  @IsUUID(undefined, { each: true })
  clientIds: string[];

  @ApiPropertyOptional({ description: 'A plan to go by; its clients must be those of the session' })
  @IsOptional()
  @IsUUID()
  planId?: string;

  @ApiPropertyOptional({ type: Object, description: 'The programme of a session that only a device still has' })
  @IsOptional()
  @IsObject()
  programme?: object;

  @ApiPropertyOptional({ description: 'A session that was begun before, and that this server does not have any more' })
  @IsOptional()
  @IsBoolean()
  again?: boolean;

  @ApiProperty({ description: "The device's time, UTC; refused when it is more than a day off" })
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
  @ApiProperty({ type: [Object], maxItems: 500 })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  @IsObject({ each: true })
  events: object[];
}

export class MissingEventsDto {
  @ApiProperty({ type: [String], maxItems: 2000 })
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
