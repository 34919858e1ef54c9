import { ApiPropertyOptional } from '@nestjs/swagger';
import type { Body } from '@waxwing/core/api';
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
  ValidateIf,
} from 'class-validator';

import { PageQuery } from '../problems/cursor.js';
import { IsName } from '../problems/text.js';

/** Long enough to be looked at, whatever somebody pastes. */
const MOST_SECRET = 500;
const PIN = new RegExp(`^\\d{${PIN_DIGITS.least},${PIN_DIGITS.most}}$`);

export class BeginDto implements Body<'POST /door/begin'> {
  @IsName(80)
  name: string;

  @IsOptional()
  @IsString()
  @MaxLength(MOST_SECRET)
  passphrase?: string | null;

  @IsBoolean()
  open: boolean;
}

export class OpenDto implements Body<'PATCH /door'> {
  @IsBoolean()
  open: boolean;
}

export class SignInDto implements Body<'POST /door/sign-in'> {
  @IsString()
  @MaxLength(80)
  name: string;

  @IsString()
  @MaxLength(MOST_SECRET)
  passphrase: string;
}

export class RecoverDto extends SignInDto implements Body<'POST /door/recover'> {
  @IsString()
  @MaxLength(60)
  code: string;
}

export class PassphraseDto implements Body<'POST /door/passphrase'> {
  @IsOptional()
  @IsString()
  @MaxLength(MOST_SECRET)
  now?: string;

  @IsString()
  @MaxLength(MOST_SECRET)
  passphrase: string;
}

export class PairDto implements Body<'POST /door/pair'> {
  @IsString()
  @MaxLength(100)
  key: string;

  @IsName(40)
  name: string;

  @Matches(PIN, { message: `must be ${PIN_DIGITS.least} to ${PIN_DIGITS.most} digits` })
  pin: string;
}

export class PinDto implements Body<'POST /door/unlock'> {
  @Matches(PIN, { message: `must be ${PIN_DIGITS.least} to ${PIN_DIGITS.most} digits` })
  pin: string;
}

export class AddAccountDto implements Body<'POST /accounts'> {
  @IsName(80)
  name: string;

  @IsIn(ROLES)
  role: Role;
}

export class ChangeAccountDto implements Body<'PATCH /accounts/{id}'> {
  @IsOptional()
  @IsIn(ROLES)
  role?: Role;

  @IsOptional()
  @IsBoolean()
  shutOut?: boolean;
}

export class TrainersDto implements Body<'POST /clients/{id}/trainers'> {
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

export class KeepsDto implements Body<'PATCH /door/keeps'> {
  @IsInt()
  @Min(90)
  @Max(3650)
  auditDays: number;

  @IsInt()
  @Min(90)
  @Max(3650)
  erasedDays: number;

  @ValidateIf(({ sessionDays }: KeepsDto) => sessionDays !== null)
  @IsInt()
  @Min(365)
  @Max(36_500)
  sessionDays: number | null;
}
