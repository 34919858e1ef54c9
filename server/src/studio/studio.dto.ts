import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import { type Looks, LOOKS, SPACES, type Space } from '@waxwing/core/movement';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsUUID,
  Matches,
  Min,
  ValidateNested,
} from 'class-validator';
import { IsLine, IsLines, IsName } from '../problems/text.js';
import { IsKit, KitPieceDto } from '../clients/clients.dto.js';

/** A place beside the studio, with what is there. */
export class KeptPlaceDto {
  @ApiProperty({ description: 'Made by the device' })
  @IsUUID()
  id: string;

  @ApiProperty({ maxLength: 80 })
  @IsName(80)
  name: string;

  @ApiProperty({ type: [KitPieceDto] })
  @IsKit()
  kit: KitPieceDto[];

  @ApiProperty({ enum: SPACES })
  @IsIn(SPACES)
  space: Space;
}

export class EditStudioDto {
  @ApiProperty()
  @IsInt()
  @Min(1)
  version: number;

  @ApiProperty({ maxLength: 80 })
  @IsName(80)
  name: string;

  @ApiProperty({ maxLength: 80 })
  @IsLine(80)
  trainer: string;

  @ApiProperty({ type: [KitPieceDto] })
  @IsKit()
  kit: KitPieceDto[];

  @ApiPropertyOptional({ enum: SPACES, description: 'The room that there is to work in' })
  @IsOptional()
  @IsIn(SPACES)
  space?: Space;

  @ApiPropertyOptional({ type: () => [KeptPlaceDto], description: 'Where else sessions are held' })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @ArrayUnique(({ id }: KeptPlaceDto) => id)
  @IsObject({ each: true, message: 'must hold objects' })
  @ValidateNested({ each: true })
  @Type(() => KeptPlaceDto)
  places?: KeptPlaceDto[];

  @ApiPropertyOptional({ type: Object, description: 'House rule → option; a rule left out keeps its first option' })
  @IsOptional()
  @IsObject()
  houseRules?: Record<string, string>;

  @ApiPropertyOptional({ nullable: true, enum: LOOKS, description: 'Who shows the movements; null for a mix' })
  @IsOptional()
  @IsIn(LOOKS)
  looks?: Looks | null;

  @ApiPropertyOptional({ maxLength: 2000, description: 'What is done here in an emergency' })
  @IsOptional()
  @IsLines(2000)
  emergencyText?: string;

  @ApiPropertyOptional({ maxLength: 40, description: 'The number to call; digits, spaces, + - ( ) /' })
  @IsOptional()
  @IsLine(40)
  @Matches(/^[\d\s+()/-]*$/, { message: 'must be a telephone number' })
  emergencyPhone?: string;
}
