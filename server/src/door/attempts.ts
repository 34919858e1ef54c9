/**
 * How often somebody may try a secret. Counted by address and account together, and by address alone against one who tries many names. What
 * fails at an account from all addresses together makes no one wait who has not failed: it would lock the owner out of their own studio. It
 * only takes away the free tries, so that many addresses get no more of them than one.
 */
import { Injectable } from '@nestjs/common';
import { ipKeyGenerator } from 'express-rate-limit';

import { ProblemException } from '../problems/problem.js';

interface Tries {
  failed: number;
  /** Milliseconds since 1970. */
  openAt: number;
  last: number;
}

/** So many fail at once without a wait. */
const FREE = 5;
/** The first wait, and the longest, in seconds. */
const [FIRST_WAIT, LONGEST_WAIT] = [15, 900];
/** On the machine itself nobody waits longer than this. */
const LONGEST_HERE = 15;
/** Tries are forgotten after an hour without one. */
const FORGOTTEN_MS = 3_600_000;
/** From one address against many names. */
const FREE_OF_ADDRESS = 20;
/** From here on, failed at one account from everywhere, every failure at it is followed by a wait. */
const MANY = 30;
const MOST_KNOWN = 10_000;

export interface Attempt {
  /** The address that it comes from. */
  address: string;
  /** The account, or whatever else is tried at. */
  at: string;
  /** Whether it comes from the machine itself. */
  here: boolean;
}

@Injectable()
export class Attempts {
  private readonly tries = new Map<string, Tries>();

  /**
   * Counts a try before it is known how it ends: of many at once no more are looked at than one after the other.
   * @throws 429 while it is too early for another one
   */
  begin(attempt: Attempt): void {
    const now = Date.now();
    const counters = this.countersOf(attempt);
    const wait = Math.max(0, ...counters.map(({ key }) => (this.tries.get(key)?.openAt ?? 0) - now));
    if (wait > 0) throw tooMany(Math.ceil(wait / 1000));
    for (const { key, free, longest } of counters) {
      const failed = this.failedAt(key, now) + 1;
      const waits = failed < free ? 0 : Math.min(longest, FIRST_WAIT * 2 ** (failed - free));
      this.tries.delete(key);
      this.tries.set(key, { failed, openAt: now + waits * 1000, last: now });
    }
    // The oldest goes first: a map keeps the order in which its keys came.
    for (const key of this.tries.keys()) {
      if (this.tries.size <= MOST_KNOWN) break;
      this.tries.delete(key);
    }
  }

  /** A try that was right counts for nothing. */
  succeeded(attempt: Attempt): void {
    const [own, ...others] = this.countersOf(attempt);
    if (own) this.tries.delete(own.key);
    for (const { key } of others) {
      const known = this.tries.get(key);
      if (known) this.tries.set(key, { ...known, failed: known.failed - 1, openAt: 0 });
    }
  }

  private failedAt(key: string, now: number): number {
    const known = this.tries.get(key);
    return known && now - known.last < FORGOTTEN_MS ? known.failed : 0;
  }

  private countersOf({ address, at, here }: Attempt): { key: string; free: number; longest: number }[] {
    const longest = here ? LONGEST_HERE : LONGEST_WAIT;
    // Whoever has one address of IPv6 has all of its network's. Who is at the machine itself waits for nobody else's tries.
    const from = here ? 'here' : ipKeyGenerator(address);
    const everywhere = ` ${at}`;
    const pressed = !here && this.failedAt(everywhere, Date.now()) >= MANY;
    return [
      { key: `${from} ${at}`, free: pressed ? 1 : FREE, longest },
      { key: from, free: FREE_OF_ADDRESS, longest },
      ...(here ? [] : [{ key: everywhere, free: Infinity, longest }]),
    ];
  }
}

export const tooMany = (seconds: number): ProblemException =>
  new ProblemException(429, `That was too often. Try again in ${seconds} ${seconds === 1 ? 'second' : 'seconds'}.`);
