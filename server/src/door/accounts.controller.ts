import { Body, Controller, Get, HttpCode, Param, Patch, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Visitor } from '@waxwing/core/door';

import { AN_ID } from '../problems/an-id.js';
import { AccountsService } from './accounts.service.js';
import { About, ForOwner, ForTrainers, FromDevice, Who } from './allowed.js';
import { AddAccountDto, ChangeAccountDto, TrainersDto } from './door.dto.js';
import { TrainersService } from './trainers.service.js';

@ApiTags('door')
@Controller()
export class AccountsController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly trainers: TrainersService,
  ) {}

  @Get('accounts')
  @ForTrainers()
  @ApiOperation({ summary: 'Who works here' })
  async list() {
    return { items: await this.accounts.list() };
  }

  @Post('accounts')
  @ForOwner()
  @ApiOperation({ summary: 'Somebody new; answers with a code by which they choose their passphrase within a week' })
  add(@Who() visitor: Visitor, @FromDevice() device: string, @Body() { name, role }: AddAccountDto) {
    return this.accounts.add(visitor, device, name, role);
  }

  @Patch('accounts/:id')
  @ForOwner()
  @ApiOperation({ summary: 'Give somebody another role, shut them out, or let them in again' })
  change(
    @Who() visitor: Visitor,
    @FromDevice() device: string,
    @Param('id', AN_ID) id: string,
    @Body() change: ChangeAccountDto,
  ) {
    return this.accounts.change(visitor, device, id, change);
  }

  @Post('accounts/:id/code')
  @HttpCode(200)
  @ForOwner()
  @ApiOperation({ summary: 'A new code for somebody who has none or lost theirs' })
  code(@Who() visitor: Visitor, @FromDevice() device: string, @Param('id', AN_ID) id: string) {
    return { code: this.accounts.inviteAgain(visitor, device, id) };
  }

  @Get('clients/:id/trainers')
  @ForTrainers()
  @About({ client: ['params.id'] })
  @ApiOperation({ summary: 'Who sees a client, besides the owner' })
  async of(@Param('id', AN_ID) id: string) {
    return { accountIds: await this.trainers.of(id) };
  }

  @Post('clients/:id/trainers')
  @HttpCode(200)
  @ForTrainers()
  @About({ client: ['params.id'] })
  @ApiOperation({ summary: 'Say who sees a client, besides the owner' })
  async give(
    @Who() visitor: Visitor,
    @FromDevice() device: string,
    @Param('id', AN_ID) id: string,
    @Body() { accountIds }: TrainersDto,
  ) {
    return { accountIds: await this.trainers.give(visitor, device, id, accountIds) };
  }
}
