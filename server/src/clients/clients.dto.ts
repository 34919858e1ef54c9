import { applyDecorators } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, PartialType } from '@nestjs/swagger';
import { DAY_KINDS, type DayKind } from '@waxwing/core/client';
import {
  type Demand,
  DEMANDS,
  KIT_ITEMS,
  type KitItem,
  type Looks,
  LOOKS,
  type Space,
  SPACES,
} from '@waxwing/core/movement';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsEmail,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsUUID,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { IsCalendarDay, IsLine, IsLines, IsName } from '../problems/text.js';

/** May be left out, but not be null. */
const IfPresent = () => ValidateIf((_, value: unknown) => value !== undefined);

export class LimitDto {
  @ApiProperty({ enum: DEMANDS })
  @IsIn(DEMANDS)
  demand: Demand;

  @ApiProperty({ minimum: 0, maximum: 2 })
  @IsInt()
  @Min(0)
  @Max(2)
  allowed: number;

  @ApiProperty({ maxLength: 200 })
  @IsName(200)
  reason: string;

  @ApiPropertyOptional({ description: 'Last day it holds; left out, it lasts', nullable: true, type: String })
  @IsOptional()
  @IsCalendarDay()
  until?: string | null;
}

export class KitPieceDto {
  @ApiProperty({ enum: KIT_ITEMS })
  @IsIn(KIT_ITEMS)
  item: KitItem;

  @ApiProperty({ minimum: 1, maximum: 99 })
  @IsInt()
  @Min(1)
  @Max(99)
  count: number;

  @ApiPropertyOptional({ nullable: true, type: Number, description: 'Kilograms, for weighed things' })
  @IsOptional()
  @IsNumber()
  @Min(0.1)
  @Max(500)
  kg?: number | null;

  @ApiPropertyOptional({ nullable: true, type: String, description: 'How the weight was entered, such as 25 lb' })
  @IsOptional()
  @IsLine(40)
  label?: string | null;

  @ApiPropertyOptional({ nullable: true, enum: ['lb'], description: 'The unit it was entered in; kilograms without' })
  @IsOptional()
  @IsIn(['lb'])
  unit?: 'lb' | null;

  @ApiPropertyOptional({
    nullable: true,
    type: () => [PlatesDto],
    description: 'What a handle or a bar can be loaded with',
  })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsObject({ each: true, message: 'must hold objects' })
  @ValidateNested({ each: true })
  @Type(() => PlatesDto)
  plates?: PlatesDto[] | null;

  @ApiPropertyOptional({ nullable: true, type: Number, description: "A stack's step in kilograms" })
  @IsOptional()
  @IsNumber()
  @Min(0.1)
  @Max(100)
  stepKg?: number | null;

  @ApiPropertyOptional({ nullable: true, type: Number, description: "A stack's heaviest setting" })
  @IsOptional()
  @IsNumber()
  @Min(0.1)
  @Max(500)
  mostKg?: number | null;

  @ApiPropertyOptional({ nullable: true, type: Number, description: 'Seconds to set another weight' })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(600)
  changeSeconds?: number | null;

  @ApiPropertyOptional({ nullable: true, type: Number, description: 'Place of a band from the lightest, 1 first' })
  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(20)
  order?: number | null;

  @ApiPropertyOptional({ nullable: true, type: [Number], description: 'Heights of a step in centimetres' })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10)
  @IsInt({ each: true })
  @Min(1, { each: true })
  @Max(200, { each: true })
  heightsCm?: number[] | null;
}

/** What a place has: at most a hundred pieces, each checked. */
export const IsKit = () =>
  applyDecorators(
    IsArray(),
    ArrayMaxSize(100),
    IsObject({ each: true, message: 'must hold objects' }),
    ValidateNested({ each: true }),
    Type(() => KitPieceDto),
  );

export class PlatesDto {
  @ApiProperty({ description: 'Kilograms of one plate' })
  @IsNumber()
  @Min(0.05)
  @Max(100)
  kg: number;

  @ApiProperty({ minimum: 1, maximum: 99 })
  @IsInt()
  @Min(1)
  @Max(99)
  count: number;
}

export class CreateClientDto {
  @ApiProperty({ maxLength: 80 })
  @IsName(80)
  name: string;

  @ApiPropertyOptional({ maxLength: 200 })
  @IfPresent()
  @IsLine(200)
  about?: string;

  @ApiPropertyOptional({ maxLength: 200 })
  @IfPresent()
  @IsLine(200)
  goal?: string;

  @ApiPropertyOptional({ maxLength: 2000, description: 'Private' })
  @IfPresent()
  @IsLines(2000)
  healthNote?: string;

  @ApiPropertyOptional({ nullable: true, type: String, description: 'Day of consent to touch' })
  @IsOptional()
  @IsCalendarDay()
  touchConsentOn?: string | null;

  @ApiPropertyOptional({ nullable: true, type: String, description: 'Day of consent to be filmed' })
  @IsOptional()
  @IsCalendarDay()
  filmConsentOn?: string | null;

  @ApiPropertyOptional({ maxLength: 120, description: 'Where sheets are sent' })
  @ValidateIf((_, value: unknown) => value !== undefined && value !== '')
  @IsEmail({}, { message: 'must be an e-mail address' })
  @MaxLength(120)
  email?: string;

  @ApiPropertyOptional({ maxLength: 2000 })
  @IfPresent()
  @IsLines(2000)
  note?: string;

  @ApiPropertyOptional({ nullable: true, type: Number, description: 'Whole years of training so far' })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(90)
  trainingYears?: number | null;

  @ApiPropertyOptional({ nullable: true, type: Number })
  @IsOptional()
  @IsNumber()
  @Min(20)
  @Max(400)
  bodyKg?: number | null;

  @ApiPropertyOptional({ nullable: true, enum: DAY_KINDS, description: 'How the day is mostly spent' })
  @IsOptional()
  @IsIn(DAY_KINDS)
  dayMostly?: DayKind | null;

  @ApiPropertyOptional({ nullable: true, enum: LOOKS, description: 'Who shows the movements to them' })
  @IsOptional()
  @IsIn(LOOKS)
  looks?: Looks | null;

  @ApiPropertyOptional({ enum: ['kg', 'lb'] })
  @IfPresent()
  @IsIn(['kg', 'lb'])
  unit?: 'kg' | 'lb';

  @ApiPropertyOptional({
    nullable: true,
    type: Object,
    description: 'Questions before the first session; checked by the core',
  })
  @IsOptional()
  @IsObject()
  readiness?: object | null;

  @ApiPropertyOptional({ nullable: true, type: Object, description: 'The check before a session; checked by the core' })
  @IsOptional()
  @IsObject()
  today?: object | null;

  @ApiPropertyOptional({ type: [Object], description: 'Measured benchmarks; checked by the core' })
  @IfPresent()
  @IsArray()
  @ArrayMaxSize(500)
  @IsObject({ each: true, message: 'must hold objects' })
  benchmarks?: object[];

  @ApiPropertyOptional({ type: [LimitDto] })
  @IfPresent()
  @IsArray()
  @ArrayMaxSize(40)
  @IsObject({ each: true, message: 'must hold objects' })
  @ValidateNested({ each: true })
  @Type(() => LimitDto)
  limits?: LimitDto[];

  @ApiPropertyOptional({ type: [KitPieceDto] })
  @IfPresent()
  @IsKit()
  kit?: KitPieceDto[];

  @ApiPropertyOptional({ enum: SPACES, description: 'The room there is at home' })
  @IfPresent()
  @IsIn(SPACES)
  homeSpace?: Space;

  @ApiPropertyOptional({ type: Object, description: "House rule → option, where they differ from the studio's" })
  @IfPresent()
  @IsObject()
  houseRules?: Record<string, string>;
}

/** What is left out stays as it is. */
export class EditClientDto extends PartialType(CreateClientDto, { skipNullProperties: false }) {
  @ApiProperty({ description: 'The version that the change was made from' })
  @IsInt()
  @Min(1)
  version: number;
}

export class RemoveClientDto {
  @ApiProperty({ description: 'The name of the client, typed, so that nobody is deleted by a slip' })
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
