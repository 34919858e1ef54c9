/** Pairing: a key that is shown at the desk, good once and for five minutes, by which a tablet comes in. */
import { Inject, Injectable } from '@nestjs/common';
import { isEasyPin, type Pairing, type Visitor } from '@waxwing/core/door';
import type { Request, Response } from 'express';
import QRCode from 'qrcode';

import { CONFIG, type Config } from '../config.js';
import { WriteGate } from '../database/write-gate.js';
import { NetworkService } from '../network/network.service.js';
import { invalid, ProblemException } from '../problems/problem.js';
import { AccountsService } from './accounts.service.js';
import { Attempts } from './attempts.js';
import { DoorService } from './door.service.js';
import { hashOf, newToken, sealedPin } from './secrets.js';
import { whereFrom } from './where-from.js';

const GOOD_FOR_MS = 5 * 60_000;

@Injectable()
export class PairingService {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly gate: WriteGate,
    private readonly accounts: AccountsService,
    private readonly attempts: Attempts,
    private readonly door: DoorService,
    private readonly network: NetworkService,
  ) {}

  /** @throws 409 where no other device can come to this studio, or nobody has an account yet */
  async offer(visitor: Visitor): Promise<Pairing> {
    const [address] = this.network.addresses;
    if (!address)
      throw new ProblemException(409, 'Other devices cannot come here yet: start Waxwing with npm start -- --network.');
    if (!(await this.accounts.find(visitor.id)))
      throw new ProblemException(409, 'Say first who you are: set a name and a passphrase.');
    const key = newToken();
    const endsAt = new Date(Date.now() + GOOD_FOR_MS).toISOString();
    this.gate.write((writer) => {
      writer.run('DELETE FROM pairings WHERE accountId = ? OR endsAt < ?', visitor.id, new Date().toISOString());
      writer.run('INSERT INTO pairings (hash, accountId, endsAt) VALUES (?, ?, ?)', hashOf(key), visitor.id, endsAt);
    });
    // Behind the sign, so that no server and no log on the way is told of the key.
    const whole = `${address}/pair#${key}`;
    return { endsAt, address: whole, code: await QRCode.toString(whole, { type: 'svg', margin: 1 }) };
  }

  /** @throws 401 for a key that is over, used, or none; 422 for a PIN that anybody would try first: the key stays good; 429 */
  async pair(request: Request, response: Response, key: string, name: string, pin: string): Promise<void> {
    const attempt = { ...whereFrom(request, this.config), at: 'pairing' };
    this.attempts.begin(attempt);
    const hash = hashOf(key);
    const easy = isEasyPin(pin);
    // Taken away before anything else, so that two tablets with one key are one.
    const found = this.gate.write((writer) => {
      const row = writer.get<{ accountId: string; endsAt: string }>('SELECT * FROM pairings WHERE hash = ?', hash);
      if (!easy) writer.run('DELETE FROM pairings WHERE hash = ?', hash);
      return row;
    });
    const account =
      found && found.endsAt >= new Date().toISOString() ? await this.accounts.find(found.accountId) : undefined;
    if (!account || account.shutOutAt !== null) {
      throw new ProblemException(401, 'This key is used or over. Show a new one at the desk.');
    }
    this.attempts.succeeded(attempt);
    if (easy) throw invalid([{ path: 'pin', message: 'is among the first that anybody would try' }]);
    await this.door.letIn(request, response, account, 'device-paired', { name, pin: await sealedPin(pin) });
  }
}
