import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Transform, Type } from 'class-transformer';
import { PATTERNS, PHASES, PLANES, POSITIONS, PROGRESSIONS, ROLES, SIDES, SPACES } from '@waxwing/core/movement';
import { Allow, IsBoolean, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';

export class ListMovementsQuery {
  @ApiPropertyOptional({ description: 'Words to find in names, aliases, cues, faults, muscles and kit' })
  @IsOptional()
  @IsString()
  @MaxLength(100)
  q?: string;

  @ApiPropertyOptional({ description: 'Only this family' })
  @IsOptional()
  @IsString()
  @MaxLength(60)
  family?: string;

  @ApiPropertyOptional({ description: 'Where the page before ended' })
  @IsOptional()
  @IsString()
  @MaxLength(60)
  cursor?: string;

  @ApiPropertyOptional({ description: 'The archived ones instead' })
  @IsOptional()
  @Transform(({ value }) => value === 'true' || value === true)
  @IsBoolean()
  archived?: boolean;

  @ApiPropertyOptional({ minimum: 1, maximum: 5000, default: 5000 })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(5000)
  limit = 5000;
}

/** Any part of a movement. Its inside is checked by the movement schema of core, and answered by field path. */
class MovementPartsDto {
  @ApiPropertyOptional({ maxLength: 80 })
  @Allow()
  name?: unknown;

  @ApiPropertyOptional({ type: [String] })
  @Allow()
  aliases?: unknown;

  @ApiPropertyOptional({ type: [String] })
  @Allow()
  families?: unknown;

  @ApiPropertyOptional({ enum: PATTERNS })
  @Allow()
  pattern?: unknown;

  @ApiPropertyOptional({ enum: ROLES })
  @Allow()
  role?: unknown;

  @ApiPropertyOptional({ enum: POSITIONS })
  @Allow()
  position?: unknown;

  @ApiPropertyOptional({ enum: SIDES })
  @Allow()
  sides?: unknown;

  @ApiPropertyOptional({ enum: PLANES, isArray: true })
  @Allow()
  planes?: unknown;

  @ApiPropertyOptional({ type: Object, description: 'prime and assist' })
  @Allow()
  muscles?: unknown;

  @ApiPropertyOptional({ type: [Object], description: 'Options, each a list of needs' })
  @Allow()
  kit?: unknown;

  @ApiPropertyOptional({ enum: SPACES })
  @Allow()
  space?: unknown;

  @ApiPropertyOptional({ type: Object, description: 'Demand → 0 to 3' })
  @Allow()
  demands?: unknown;

  @ApiPropertyOptional({ type: Object, description: 'mode, tempo and windows by purpose' })
  @Allow()
  dose?: unknown;

  @ApiPropertyOptional({ maxLength: 160 })
  @Allow()
  breath?: unknown;

  @ApiPropertyOptional({ enum: PHASES, isArray: true })
  @Allow()
  phases?: unknown;

  @ApiPropertyOptional({ type: [Object] })
  @Allow()
  cues?: unknown;

  @ApiPropertyOptional({ type: [Object] })
  @Allow()
  faults?: unknown;

  @ApiPropertyOptional({ type: [Object] })
  @Allow()
  links?: unknown;

  @ApiPropertyOptional({ type: [String] })
  @Allow()
  cautions?: unknown;

  @ApiPropertyOptional({ type: String, description: 'Two to four plain sentences for somebody alone' })
  @Allow()
  how?: unknown;

  @ApiPropertyOptional({ type: [String], description: 'What is found once for each client and set the same again' })
  @Allow()
  setUp?: unknown;

  @ApiPropertyOptional({ type: [String], description: 'Movements to be owned first' })
  @Allow()
  precursors?: unknown;

  @ApiPropertyOptional({ type: Object, description: 'What should be felt, and what means stop' })
  @Allow()
  feel?: unknown;

  @ApiPropertyOptional({ enum: PROGRESSIONS })
  @Allow()
  progression?: unknown;

  @ApiPropertyOptional({ type: String, description: 'The movement whose figure shows this one too' })
  @Allow()
  drawnAs?: unknown;
}

export class CreateMovementDto extends MovementPartsDto {
  @ApiProperty({ description: 'A slug, such as goblet-squat' })
  @Allow()
  id: unknown;
}

export class EditMovementDto extends MovementPartsDto {
  @ApiProperty({ description: 'The version that the change was made from' })
  @IsInt()
  @Min(1)
  version: number;
}

export class ArchiveMovementDto {
  @ApiProperty({ description: 'The version that is archived' })
  @IsInt()
  @Min(1)
  version: number;

  @ApiProperty({ description: 'true to take it out of the library, false to put it back' })
  @IsBoolean()
  archived: boolean;
}
