import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { IsEmail, IsIn, IsInt, IsObject, IsOptional, IsUUID, Min } from 'class-validator';
import { PageQuery } from '../problems/cursor.js';
import { IsTime } from '../problems/text.js';

export class SavePlanDto {
  @ApiPropertyOptional({ description: 'Made by the page, so that a plan sent twice is stored once' })
  @IsOptional()
  @IsUUID()
  id?: string;

  @ApiProperty({ type: Object, description: 'The plan: name, clients, minutes, blocks' })
  @IsObject()
  plan: object;
}

export class EditPlanDto {
  @ApiProperty({ description: 'The version that the change was made from' })
  @IsInt()
  @Min(1)
  version: number;

  @ApiProperty({ type: Object })
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

export class SendSheetDto {
  @ApiProperty()
  @IsUUID()
  clientId: string;

  @ApiPropertyOptional({ description: "Where to; the client's own address when left out" })
  @IsOptional()
  @IsEmail({}, { message: 'must be an e-mail address' })
  to?: string;
}
