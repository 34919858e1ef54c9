import { ApiPropertyOptional } from '@nestjs/swagger';
import type { Body } from '@waxwing/core/api';
import { Transform, Type } from 'class-transformer';
import { IsBoolean, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';

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

/** Which movements of the library; all of them when left out. */
export class ChosenQuery {
  @ApiPropertyOptional({ description: 'Ids of movements, with commas between them' })
  @IsOptional()
  @IsString()
  @MaxLength(400_000)
  ids?: string;
}

export class CaptionQuery {
  @ApiPropertyOptional({ description: 'What the picture shows' })
  @IsOptional()
  @IsString()
  caption?: string;
}

export class ArchiveMovementDto implements Body<'POST /movements/{id}/archive'> {
  @IsInt()
  @Min(1)
  version: number;

  @IsBoolean()
  archived: boolean;
}
