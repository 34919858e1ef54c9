/** Passphrases that are chosen anew: with the old one, or with a code where there is none any more. */
import { Inject, Injectable } from '@nestjs/common';
import type { Visitor } from '@waxwing/core/door';
import type { Request, Response } from 'express';

import { CONFIG, type Config } from '../config.js';
import { ProblemException } from '../problems/problem.js';
import { type AccountRow, AccountsService, keyOf } from './accounts.service.js';
import { deviceOf } from './allowed.js';
import { Attempts } from './attempts.js';
import { DoorService } from './door.service.js';
import { opens } from './secrets.js';
import { browserOf, whereFrom } from './where-from.js';

@Injectable()
export class RecoveryService {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly accounts: AccountsService,
    private readonly attempts: Attempts,
    private readonly door: DoorService,
  ) {}

  /** @returns the next code @throws 401, 422, 429 */
  async recover(request: Request, response: Response, name: string, code: string, passphrase: string): Promise<string> {
    const attempt = { ...whereFrom(request, this.config), at: `code ${keyOf(name)}` };
    this.attempts.begin(attempt);
    const account = await this.accounts.named(name);
    if (!account || !this.accounts.isCode(account, code)) {
      throw new ProblemException(401, 'Name and code do not belong together, or the code is over.');
    }
    this.attempts.succeeded(attempt);
    const next = await this.accounts.setPassphrase(account, passphrase, browserOf(request));
    await this.door.letIn(request, response, account, 'recovered');
    return next;
  }

  /** @returns the next code @throws 422 when the one so far is another, 429 */
  async change(
    request: Request,
    response: Response,
    visitor: Visitor,
    now: string,
    passphrase: string,
  ): Promise<string> {
    const attempt = { ...whereFrom(request, this.config), at: `change ${visitor.id}` };
    this.attempts.begin(attempt);
    const account = await this.accounts.find(visitor.id);
    if (!account) throw new ProblemException(409, 'Say first who you are: set a name and a passphrase.');
    if (!(await this.isRight(account, now))) {
      throw new ProblemException(422, 'This is not your passphrase.', [{ path: 'now', message: 'is another' }]);
    }
    this.attempts.succeeded(attempt);
    const code = await this.accounts.setPassphrase(account, passphrase, deviceOf(request));
    await this.door.letIn(request, response, account, 'signed-in');
    return code;
  }

  /** Who has none yet is let in by the machine itself. */
  private async isRight({ passphrase }: AccountRow, typed: string): Promise<boolean> {
    return passphrase === null || opens(passphrase, typed);
  }
}
