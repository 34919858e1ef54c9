/**
 * What is private of people lies sealed in the database (AES-256-GCM), with a key that is not in it: a copy of the file alone shows none of
 * it. A sealed text names its key, so that one that was changed still opens what it sealed, and opens in its own row only: what is sealed of
 * one person cannot be put to another.
 */
import { createCipheriv, createDecipheriv, createHash, createHmac, randomBytes } from 'node:crypto';

const SIGN = 'sealed:';
const [START_BYTES, TAG_BYTES] = [12, 16];
export const KEY_BYTES = 32;

/** A short name of a key, from which it cannot be had back. */
export const keyName = (key: Buffer): string => createHash('sha256').update(key).digest('hex').slice(0, 12);

/** Whether a text lies sealed. */
export const isSealed = (value: unknown): value is string => typeof value === 'string' && value.startsWith(SIGN);

/** Follows the name of the key where a text is bound to its row; earlier versions bound it to its column alone. */
const BOUND = '+';
const boundTo = (where: string, row: string): Buffer => Buffer.from(JSON.stringify([where, row]));

export class Sealer {
  private readonly keys: ReadonlyMap<string, Buffer>;
  private readonly current: Buffer;

  /**
   * @param keys of 32 bytes; the first seals, the others open what they once sealed
   * @param unbound opens what earlier versions sealed as well
   */
  constructor(
    keys: readonly [Buffer, ...Buffer[]],
    private readonly unbound = false,
  ) {
    this.current = keys[0];
    this.keys = new Map(keys.map((key) => [keyName(key), key]));
  }

  /**
   * @param where table and column: what is sealed for one place does not open in another
   * @param row what its row is known by: nor in another row
   */
  seal(text: string, where: string, row: string): string {
    const start = randomBytes(START_BYTES);
    const cipher = createCipheriv('aes-256-gcm', this.current, start).setAAD(boundTo(where, row));
    const sealed = Buffer.concat([start, cipher.update(text, 'utf8'), cipher.final()]);
    return `${SIGN}${keyName(this.current)}${BOUND}:${Buffer.concat([sealed, cipher.getAuthTag()]).toString('base64')}`;
  }

  /** A sealed text in plain; undefined where it was changed or comes from elsewhere, or its key is not here. */
  open(sealed: string, where: string, row: string): string | undefined {
    const [name = '', text = ''] = sealed.slice(SIGN.length).split(':');
    const bound = name.endsWith(BOUND);
    const key = this.keys.get(bound ? name.slice(0, -BOUND.length) : name);
    const bytes = Buffer.from(text, 'base64');
    if (!key || bytes.length < START_BYTES + TAG_BYTES || !(bound || this.unbound)) return undefined;
    try {
      const decipher = createDecipheriv('aes-256-gcm', key, bytes.subarray(0, START_BYTES), {
        authTagLength: TAG_BYTES,
      })
        .setAAD(bound ? boundTo(where, row) : Buffer.from(where))
        .setAuthTag(bytes.subarray(-TAG_BYTES));
      return decipher.update(bytes.subarray(START_BYTES, -TAG_BYTES), undefined, 'utf8') + decipher.final('utf8');
    } catch {
      return undefined;
    }
  }

  /** Whether the key of a sealed text is here; it may have been changed all the same. */
  knows(sealed: string): boolean {
    const [name = ''] = sealed.slice(SIGN.length).split(':');
    return this.keys.has(name.endsWith(BOUND) ? name.slice(0, -BOUND.length) : name);
  }

  /** Whether a text was sealed as it is now, with the key that seals now. */
  isCurrent(sealed: string): boolean {
    return sealed.startsWith(`${SIGN}${keyName(this.current)}${BOUND}:`);
  }

  /** A mark of a text that nobody can make without the key, which it names. */
  mark(text: string): string {
    return `${keyName(this.current)}:${markWith(this.current, text)}`;
  }

  /** Whether a mark is of this text, by any key that is here. */
  isMarked(text: string, mark: string): boolean {
    const [name = '', hex] = mark.split(':');
    const key = this.keys.get(name);
    return key !== undefined && hex === markWith(key, text);
  }

  /** Whether a mark is by the key that seals now. */
  isMarkCurrent(mark: string): boolean {
    return mark.startsWith(`${keyName(this.current)}:`);
  }
}

/** A key of its own for marks, made of the one that seals. */
const markWith = (key: Buffer, text: string): string =>
  createHmac('sha256', createHmac('sha256', key).update('marks').digest()).update(text).digest('hex');
