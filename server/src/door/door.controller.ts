import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Req, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Visitor } from '@waxwing/core/door';
import type { Request, Response } from 'express';

import { AN_ID } from '../problems/an-id.js';
import { AtDesk, ForAnybody, ForEverybody, ForOwner, ForTrainers, FromDevice, TheEntry, Who } from './allowed.js';
import { DevicesService } from './devices.service.js';
import { BeginDto, KeepsDto, OpenDto, PairDto, PassphraseDto, PinDto, RecoverDto, SignInDto } from './door.dto.js';
import { DoorService, type Entry } from './door.service.js';
import { PairingService } from './pairing.service.js';
import { RecoveryService } from './recovery.service.js';

@ApiTags('door')
@Controller('door')
export class DoorController {
  constructor(
    private readonly door: DoorService,
    private readonly devices: DevicesService,
    private readonly pairing: PairingService,
    private readonly recovery: RecoveryService,
  ) {}

  @Get()
  @ForAnybody()
  @ApiOperation({ summary: 'Whether the studio is open to whoever asks, and who they are' })
  read(@TheEntry() entry: Entry) {
    return this.door.doorFor(entry);
  }

  @Post('begin')
  @HttpCode(200)
  @ForAnybody()
  @ApiOperation({ summary: 'Say who runs the studio: once, on its own machine; answers with a recovery code' })
  async begin(
    @TheEntry() entry: Entry,
    @Body() { name, passphrase = null, open }: BeginDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ) {
    const code = await this.door.begin(entry, name, passphrase, open);
    if (!open && passphrase !== null) await this.door.signIn(request, response, name, passphrase);
    return { code };
  }

  @Patch()
  @ForOwner()
  @ApiOperation({ summary: 'Whether those on the machine itself come in without signing in' })
  async setOpen(@TheEntry() entry: Entry, @Who() visitor: Visitor, @Body() { open }: OpenDto) {
    await this.door.setOpen(entry, visitor, open);
    return { open };
  }

  @Get('keeps')
  @ForOwner()
  @ApiOperation({ summary: 'How many days the audit and the ids of deleted people are kept' })
  keeps() {
    return this.door.keeps();
  }

  @Patch('keeps')
  @ForOwner()
  @ApiOperation({ summary: 'Change how long they are kept; what is older goes at once' })
  setKeeps(@Who() visitor: Visitor, @FromDevice() device: string, @Body() keeps: KeepsDto) {
    this.door.setKeeps(keeps, visitor, device);
    return keeps;
  }

  @Post('sign-in')
  @HttpCode(204)
  @ForAnybody()
  @ApiOperation({ summary: 'Sign in; 401 when name and passphrase do not belong together, 429 when it was too often' })
  signIn(
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
    @Body() { name, passphrase }: SignInDto,
  ) {
    return this.door.signIn(request, response, name, passphrase);
  }

  @Post('sign-out')
  @HttpCode(204)
  @ForAnybody()
  @ApiOperation({ summary: 'Sign out on this device' })
  signOut(@TheEntry() entry: Entry, @Res({ passthrough: true }) response: Response) {
    this.door.signOut(entry, response);
  }

  @Post('recover')
  @HttpCode(200)
  @ForAnybody()
  @ApiOperation({ summary: 'Choose a passphrase with a code; signs in, and answers with the next code' })
  async recover(
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
    @Body() { name, code, passphrase }: RecoverDto,
  ) {
    return { code: await this.recovery.recover(request, response, name, code, passphrase) };
  }

  @Post('passphrase')
  @HttpCode(200)
  @ForEverybody()
  @AtDesk()
  @ApiOperation({
    summary: 'Change one’s own passphrase; ends every session of theirs but this, and answers with a new code',
  })
  async passphrase(
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
    @Who() visitor: Visitor,
    @Body() { now, passphrase }: PassphraseDto,
  ) {
    return { code: await this.recovery.change(request, response, visitor, now ?? '', passphrase) };
  }

  @Get('devices')
  @ForEverybody()
  @ApiOperation({ summary: 'Where one is signed in; for the owner, where anybody is' })
  async list(@TheEntry() entry: Entry, @Who() visitor: Visitor) {
    return { items: await this.devices.list(entry, visitor) };
  }

  @Delete('devices/:id')
  @HttpCode(204)
  @ForEverybody()
  @AtDesk()
  @ApiOperation({ summary: 'Shut a device out: it forgets what it keeps when it next comes by' })
  shutOut(@Who() visitor: Visitor, @FromDevice() device: string, @Param('id', AN_ID) id: string) {
    this.devices.shutOut(visitor, device, id);
  }

  @Delete('devices')
  @HttpCode(204)
  @ForEverybody()
  @AtDesk()
  @ApiOperation({ summary: 'Sign out everywhere else' })
  endOthers(@Who() visitor: Visitor, @FromDevice() device: string, @TheEntry() entry: Entry) {
    this.devices.endOthers(visitor, device, entry);
  }

  @Post('pairings')
  @ForTrainers()
  @ApiOperation({ summary: 'A key for a tablet: good once, and for five minutes' })
  offer(@Who() visitor: Visitor) {
    return this.pairing.offer(visitor);
  }

  @Post('pair')
  @HttpCode(204)
  @ForAnybody()
  @ApiOperation({ summary: 'Come in as a tablet, with such a key' })
  pair(@Req() request: Request, @Res({ passthrough: true }) response: Response, @Body() { key, name, pin }: PairDto) {
    return this.pairing.pair(request, response, key, name, pin);
  }

  @Post('lock')
  @HttpCode(204)
  @ForAnybody()
  @ApiOperation({ summary: 'Put a tablet down: it asks for its PIN again' })
  lock(@TheEntry() entry: Entry) {
    this.door.lock(entry);
  }

  @Post('unlock')
  @HttpCode(204)
  @ForAnybody()
  @ApiOperation({ summary: 'Take a tablet up again; the fifth wrong PIN ends its session' })
  unlock(@TheEntry() entry: Entry, @Body() { pin }: PinDto) {
    return this.door.unlock(entry, pin);
  }
}
