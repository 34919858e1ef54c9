import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { PIN_DIGITS, type Role, ROLES } from '@waxwing/core/door';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { PageQuery } from '../problems/cursor.js';
import { IsName } from '../problems/text.js';

/** Long enough to be looked at, whatever somebody pastes. */
const MOST_SECRET = 500;
const PIN = new RegExp(`^\\d{${PIN_DIGITS.least},${PIN_DIGITS.most}}$`);

export class BeginDto {
  @ApiProperty({ maxLength: 80 })
  @IsName(80)
  name: string;

  @ApiPropertyOptional({ nullable: true, description: 'Left out where nobody signs in on this machine' })
  @IsOptional()
  @IsString()
  @MaxLength(MOST_SECRET)
  passphrase?: string | null;

  @ApiProperty({ description: 'Whether those on this machine come in without signing in' })
  @IsBoolean()
  open: boolean;
}

export class OpenDto {
  @ApiProperty()
  @IsBoolean()
  open: boolean;
}

export class SignInDto {
  @ApiProperty()
  @IsString()
  @MaxLength(80)
  name: string;

  @ApiProperty()
  @IsString()
  @MaxLength(MOST_SECRET)
  passphrase: string;
}

export class RecoverDto extends SignInDto {
  @ApiProperty({ description: 'The code that was printed, or that the owner gave' })
  @IsString()
  @MaxLength(60)
  code: string;
}

export class PassphraseDto {
  @ApiPropertyOptional({ description: 'The one so far, where there is one' })
  @IsOptional()
  @IsString()
  @MaxLength(MOST_SECRET)
  now?: string;

  @ApiProperty()
  @IsString()
  @MaxLength(MOST_SECRET)
  passphrase: string;
}

export class PairDto {
  @ApiProperty()
  @IsString()
  @MaxLength(100)
  key: string;

  @ApiProperty({ maxLength: 40, description: 'What the tablet is called' })
  @IsName(40)
  name: string;

  @ApiProperty({ description: `${PIN_DIGITS.least} to ${PIN_DIGITS.most} digits` })
  @Matches(PIN, { message: `must be ${PIN_DIGITS.least} to ${PIN_DIGITS.most} digits` })
  pin: string;
}

export class PinDto {
  @ApiProperty()
  @Matches(PIN, { message: `must be ${PIN_DIGITS.least} to ${PIN_DIGITS.most} digits` })
  pin: string;
}

export class AddAccountDto {
  @ApiProperty({ maxLength: 80 })
  @IsName(80)
  name: string;

  @ApiProperty({ enum: ROLES })
  @IsIn(ROLES)
  role: Role;
}

export class ChangeAccountDto {
  @ApiPropertyOptional({ enum: ROLES })
  @IsOptional()
  @IsIn(ROLES)
  role?: Role;

  @ApiPropertyOptional()
  @IsOptional()
  @IsBoolean()
  shutOut?: boolean;
}

export class TrainersDto {
  @ApiProperty({ type: [String], description: 'Accounts that see this client' })
  @IsArray()
  @ArrayMaxSize(50)
  @IsUUID(undefined, { each: true })
  accountIds: string[];
}

export class AuditQuery extends PageQuery {
  @ApiPropertyOptional()
  @IsOptional()
  @IsUUID()
  clientId?: string;

  @ApiPropertyOptional()
  @IsOptional()
  @IsUUID()
  accountId?: string;
}

export class KeepsDto {
  @ApiProperty({ minimum: 90, maximum: 3650 })
  @IsInt()
  @Min(90)
  @Max(3650)
  auditDays: number;

  @ApiProperty({
    minimum: 90,
    maximum: 3650,
    description: 'A device that comes by later than this forgets nobody any more',
  })
  @IsInt()
  @Min(90)
  @Max(3650)
  erasedDays: number;
}
