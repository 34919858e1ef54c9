import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsInt, IsObject, IsOptional, Matches, Min, ValidateNested } from 'class-validator';
import { IsLine, IsLines, IsName } from '../problems/text.js';
import { KitPieceDto } from '../clients/clients.dto.js';

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
  @IsArray()
  @ArrayMaxSize(100)
  @IsObject({ each: true, message: 'must hold objects' })
  @ValidateNested({ each: true })
  @Type(() => KitPieceDto)
  kit: KitPieceDto[];

  @ApiPropertyOptional({ type: Object, description: 'House rule → option; a rule left out keeps its first option' })
  @IsOptional()
  @IsObject()
  houseRules?: Record<string, string>;

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
