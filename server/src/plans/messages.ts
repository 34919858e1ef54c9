/**
 * Messages that wait to be sent, as files: each a standard .eml, and beside it a note of what is listed of it. Both lie sealed, since a sheet
 * says what somebody must mind; a message is plain where its trainer takes it out to send it.
 */
import { readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';

import type { OutboxMessage } from '@waxwing/core/formats';
import { v7 as uuidv7 } from 'uuid';

import { parsed } from '../database/json-column.js';
import { isSealed, type Sealer } from '../sealed/sealer.js';

/** Names that are made here: nothing else in the folder is touched. */
const NAME = /^[0-9a-f-]{36}\.eml$/;
const WHERE = 'outbox';

export interface MessageNote extends OutboxMessage {
  clientId: string;
}

/** Where messages lie, and with what they are sealed. */
export interface Outbox {
  outbox: string;
  sealer: Sealer;
}

const noteOf = (name: string): string => name.replace(/eml$/, 'json');

/** What a file of an outbox holds, by its name; undefined where it does not open. One of an earlier version lies plain. */
export function openedFile(sealer: Sealer, name: string, bytes: Buffer): Buffer | undefined {
  const text = bytes.toString('latin1');
  if (!isSealed(text)) return bytes;
  const plain = sealer.open(text, WHERE, name);
  return plain === undefined ? undefined : Buffer.from(plain, 'base64');
}

async function read({ outbox, sealer }: Outbox, name: string): Promise<Buffer | undefined> {
  const bytes = await readFile(join(outbox, name)).catch(() => undefined);
  return bytes && openedFile(sealer, name, bytes);
}

/** Written beside its place and moved there when it is whole. */
async function write({ outbox, sealer }: Outbox, name: string, plain: Buffer): Promise<void> {
  const path = join(outbox, name);
  const sealed = sealer.seal(plain.toString('base64'), WHERE, name);
  await writeFile(`${path}.part`, sealed, { mode: 0o600, flush: true });
  await rename(`${path}.part`, path);
}

/** Takes away what a killed server left (half a file, or a note without its message), and seals what an earlier version or another key left. */
export async function sweepMessages(box: Outbox): Promise<void> {
  const names = new Set(await readdir(box.outbox).catch(() => []));
  for (const name of names) {
    const half = /^[0-9a-f-]{36}\.(eml|json)\.part$/.test(name);
    const isNote = /^[0-9a-f-]{36}\.json$/.test(name);
    if (half || (isNote && !names.has(name.replace(/json$/, 'eml')))) await rm(join(box.outbox, name), { force: true });
    else if (isNote || NAME.test(name)) {
      const bytes = await readFile(join(box.outbox, name));
      const plain = box.sealer.isCurrent(bytes.toString('latin1')) ? undefined : openedFile(box.sealer, name, bytes);
      if (plain) await write(box, name, plain);
    }
  }
}

async function notes(box: Outbox): Promise<MessageNote[]> {
  const names = (await readdir(box.outbox).catch(() => [])).filter((name) => NAME.test(name)).sort();
  return Promise.all(
    names.map(async (name) => {
      const note = await read(box, noteOf(name));
      // A message is shown even when somebody took its note away.
      const kept = note === undefined ? undefined : (parsed(note.toString()) as MessageNote | undefined);
      return kept ?? { name, to: '', subject: name, writtenAt: '', clientId: '' };
    }),
  );
}

/** What waits, the latest first. */
export const listMessages = async (box: Outbox): Promise<MessageNote[]> => (await notes(box)).reverse();

/** Whom a message is to; null where that is not known. */
export async function clientOfMessage(box: Outbox, name: string): Promise<string | null> {
  const note = (await notes(box)).find((one) => one.name === name);
  return note ? note.clientId : null;
}

/** The message of a name; undefined when there is none that can be read. */
export const readMessage = (box: Outbox, name: string): Promise<Buffer | undefined> =>
  NAME.test(name) ? read(box, name) : Promise.resolve(undefined);

/** Takes away a message that is there. */
export async function removeMessage({ outbox }: Outbox, name: string): Promise<void> {
  await rm(join(outbox, basename(name)));
  await rm(join(outbox, noteOf(basename(name))), { force: true });
}

export async function removeMessagesOf(box: Outbox, isTheirs: (clientId: string) => boolean): Promise<void> {
  for (const note of await notes(box)) if (isTheirs(note.clientId)) await removeMessage(box, note.name);
}

/** Writes a message, after its note. */
export async function writeMessage(
  box: Outbox,
  { clientId, to, subject }: Pick<MessageNote, 'clientId' | 'to' | 'subject'>,
  message: Buffer,
): Promise<OutboxMessage> {
  const told: OutboxMessage = { name: `${uuidv7()}.eml`, to, subject, writtenAt: new Date().toISOString() };
  await write(box, noteOf(told.name), Buffer.from(JSON.stringify({ ...told, clientId } satisfies MessageNote)));
  await write(box, told.name, message);
  return told;
}
