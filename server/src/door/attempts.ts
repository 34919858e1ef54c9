/**
 * How often somebody may try a secret. Counted by address and account together, so that nobody far away can lock the owner out of their own
 * machine; by address alone against one who tries many names; and by account over all other machines together.
 */
import { Injectable } from '@nestjs/common';

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
/** From one address against many names, and from everywhere against one. */
const FREE_OF_ADDRESS = 20;
const FREE_OF_ACCOUNT = 50;
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
      const known = this.tries.get(key);
      const failed = known && now - known.last < FORGOTTEN_MS ? known.failed + 1 : 1;
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

  private countersOf({ address, at, here }: Attempt): { key: string; free: number; longest: number }[] {
    const longest = here ? LONGEST_HERE : LONGEST_WAIT;
    return [
      { key: `${address} ${at}`, free: FREE, longest },
      { key: address, free: FREE_OF_ADDRESS, longest },
      ...(here ? [] : [{ key: ` ${at}`, free: FREE_OF_ACCOUNT, longest }]),
    ];
  }
}

export const tooMany = (seconds: number): ProblemException =>
  new ProblemException(429, `That was too often. Try again in ${seconds} ${seconds === 1 ? 'second' : 'seconds'}.`);
