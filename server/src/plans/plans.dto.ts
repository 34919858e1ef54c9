import { ApiPropertyOptional } from '@nestjs/swagger';
import type { Body } from '@waxwing/core/api';
import { IsIn, IsInt, IsObject, IsOptional, IsUUID, Min } from 'class-validator';

import { PageQuery } from '../problems/cursor.js';
import { IsMail, IsTime } from '../problems/text.js';

export class SavePlanDto {
  @IsOptional()
  @IsUUID()
  id?: string;

  @IsObject()
  plan: object;
}

export class EditPlanDto {
  @IsInt()
  @Min(1)
  version: number;

  @IsObject()
  plan: object;
}

export class ListPlansQuery extends PageQuery {
  @ApiPropertyOptional()
  @IsOptional()
  @IsUUID()
  clientId?: string;

  @ApiPropertyOptional({ enum: ['plans', 'templates'], default: 'plans' })
  @IsOptional()
  @IsIn(['plans', 'templates'])
  kind: 'plans' | 'templates' = 'plans';

  @ApiPropertyOptional({
    description: 'Only plans from this time on, each with its session of that span, if there is one',
  })
  @IsOptional()
  @IsTime()
  from?: string;

  @ApiPropertyOptional({ description: 'Only plans before this time' })
  @IsOptional()
  @IsTime()
  to?: string;
}

export class SheetQuery {
  @ApiPropertyOptional({ description: 'Whose sheet; the first client of the plan when left out' })
  @IsOptional()
  @IsUUID()
  clientId?: string;

  @ApiPropertyOptional({ enum: ['a4', 'letter'], default: 'a4' })
  @IsOptional()
  @IsIn(['a4', 'letter'])
  paper: 'a4' | 'letter' = 'a4';
}

export class SendSheetDto implements Body<'POST /plans/{id}/send'> {
  @IsUUID()
  clientId: string;

  @IsOptional()
  @IsMail()
  to?: string;
}
