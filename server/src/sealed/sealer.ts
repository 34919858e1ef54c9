/**
 * What is noted of people's health lies sealed in the database (AES-256-GCM), with a key that is not in it: a copy of the file alone shows
 * none of it. A sealed text names its key, so that one that was changed still opens what it sealed.
 */
import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';

const SIGN = 'sealed:';
const [START_BYTES, TAG_BYTES] = [12, 16];
export const KEY_BYTES = 32;

/** By table, the columns that lie sealed. */
export const SEALED: Readonly<Record<string, readonly string[]>> = {
  clients: ['healthNote', 'note', 'readiness', 'today', 'limits', 'cleared'],
  stills: ['says', 'picture'],
  digests: ['document'],
};

/** A short name of a key, from which it cannot be had back. */
export const keyName = (key: Buffer): string => createHash('sha256').update(key).digest('hex').slice(0, 12);

/** Whether a text lies sealed. */
export const isSealed = (value: unknown): value is string => typeof value === 'string' && value.startsWith(SIGN);

export class Sealer {
  private readonly keys: ReadonlyMap<string, Buffer>;
  private readonly current: Buffer;

  /** @param keys of 32 bytes; the first seals, the others open what they once sealed */
  constructor(keys: readonly [Buffer, ...Buffer[]]) {
    this.current = keys[0];
    this.keys = new Map(keys.map((key) => [keyName(key), key]));
  }

  /** @param where table and column: what is sealed for one place does not open in another */
  seal(text: string, where: string): string {
    const start = randomBytes(START_BYTES);
    const cipher = createCipheriv('aes-256-gcm', this.current, start).setAAD(Buffer.from(where));
    const sealed = Buffer.concat([start, cipher.update(text, 'utf8'), cipher.final()]);
    return `${SIGN}${keyName(this.current)}:${Buffer.concat([sealed, cipher.getAuthTag()]).toString('base64')}`;
  }

  /** A sealed text in plain; undefined where it was changed, or its key is not here. */
  open(sealed: string, where: string): string | undefined {
    const [name = '', text = ''] = sealed.slice(SIGN.length).split(':');
    const key = this.keys.get(name);
    const bytes = Buffer.from(text, 'base64');
    if (!key || bytes.length < START_BYTES + TAG_BYTES) return undefined;
    try {
      const decipher = createDecipheriv('aes-256-gcm', key, bytes.subarray(0, START_BYTES), {
        authTagLength: TAG_BYTES,
      })
        .setAAD(Buffer.from(where))
        .setAuthTag(bytes.subarray(-TAG_BYTES));
      return decipher.update(bytes.subarray(START_BYTES, -TAG_BYTES), undefined, 'utf8') + decipher.final('utf8');
    } catch {
      return undefined;
    }
  }

  /** Whether the key of a sealed text is here; it may have been changed all the same. */
  knows(sealed: string): boolean {
    return this.keys.has(sealed.slice(SIGN.length).split(':')[0] ?? '');
  }

  /** Whether a text was sealed with the key that seals now. */
  isCurrent(sealed: string): boolean {
    return sealed.startsWith(`${SIGN}${keyName(this.current)}:`);
  }
}
