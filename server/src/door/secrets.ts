/** Secrets: made at random, and kept as something from which they cannot be had back. */
import { createHash, randomBytes, randomInt, timingSafeEqual } from 'node:crypto';

import { hash, verify } from '@node-rs/argon2';
import { PASSPHRASE_LEAST } from '@waxwing/core/door';

/** Argon2id with 64 MB and six rounds: about a fifth of a second here, and longer where more is going on. */
const COST = { memoryCost: 65_536, timeCost: 6, parallelism: 1 } as const;
/** A PIN is guessed five times at most, so that it need not be dear. */
const PIN_COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** 256 bits, for cookies and keys. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** Of something that is itself random. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('base64url');

export const isSame = (a: string, b: string): boolean =>
  timingSafeEqual(createHash('sha256').update(a).digest(), createHash('sha256').update(b).digest());

/** Letters and digits that are not taken for one another. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** A code to be printed and typed: four groups of five, about 99 bits. */
export const newCode = (): string =>
  Array.from({ length: 4 }, () => Array.from({ length: 5 }, () => LETTERS[randomInt(LETTERS.length)]).join('')).join(
    '-',
  );

/** A code as somebody typed it. */
export const codeTyped = (code: string): string => code.toLowerCase().replace(/[^a-z0-9]/g, '');

export const sealedPassphrase = (passphrase: string): Promise<string> => hash(passphrase.normalize('NFC'), COST);
export const sealedPin = (pin: string): Promise<string> => hash(pin, PIN_COST);

let nobody: Promise<string> | undefined;

/** Whether it is the one that was sealed. It takes as long where there is none. */
export async function opens(sealed: string | null, passphrase: string): Promise<boolean> {
  nobody ??= sealedPassphrase(newToken());
  const right = await verify(sealed ?? (await nobody), passphrase.normalize('NFC'));
  return right && sealed !== null;
}

/** Guesses that it must withstand, as a power of ten: of a sealed one a thousand a second can be tried, not more. */
const LEAST_LOG10 = 8;

/**
 * What is wrong with a passphrase; null when it will do.
 * @param around words that are known of whoever chose it, such as their name
 */
export async function wrongInPassphrase(passphrase: string, around: readonly string[]): Promise<string | null> {
  if (passphrase.length < PASSPHRASE_LEAST) return `must have at least ${PASSPHRASE_LEAST} characters`;
  if (passphrase.length > 200) return 'must have at most 200 characters';
  // Its word lists are large, and only wanted when somebody chooses.
  const [{ ZxcvbnFactory }, common, english] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
    import('@zxcvbn-ts/language-en'),
  ]);
  const strength = new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
  });
  const { guessesLog10 } = strength.check(passphrase, ['waxwing', ...around]);
  return guessesLog10 < LEAST_LOG10
    ? 'is too easy to guess: take three or four words that do not belong together'
    : null;
}
