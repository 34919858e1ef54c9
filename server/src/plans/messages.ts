/** Messages that wait to be sent, as files: each a standard .eml, and beside it a note of what is listed of it. */
import { readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

import type { OutboxMessage } from '@waxwing/core/formats';
import { v7 as uuidv7 } from 'uuid';

import { parsed } from '../database/json-column.js';

/** Names that are made here: nothing else in the folder is touched. */
const NAME = /^[0-9a-f-]{36}\.eml$/;

export interface MessageNote extends OutboxMessage {
  clientId: string;
}

const folderOf = (dataFolder: string): string => join(dataFolder, 'outbox');

/** What a killed server left: half a message, or a note without one. */
export async function sweepMessages(dataFolder: string): Promise<void> {
  const names = new Set(await readdir(folderOf(dataFolder)).catch(() => []));
  for (const name of names) {
    const half = /^[0-9a-f-]{36}\.eml\.part$/.test(name);
    const alone = /^[0-9a-f-]{36}\.json$/.test(name) && !names.has(name.replace(/json$/, 'eml'));
    if (half || alone) await rm(join(folderOf(dataFolder), name), { force: true });
  }
}
const noteOf = (path: string): string => path.replace(/eml$/, 'json');

async function notes(dataFolder: string): Promise<MessageNote[]> {
  const folder = folderOf(dataFolder);
  const names = (await readdir(folder).catch(() => [])).filter((name) => NAME.test(name)).sort();
  return Promise.all(
    names.map(async (name) => {
      const note = await readFile(noteOf(join(folder, name)), 'utf8').catch(() => null);
      // A message is shown even when somebody took its note away.
      const kept = note === null ? undefined : (parsed(note) as MessageNote | undefined);
      return kept ?? { name, to: '', subject: name, writtenAt: '', clientId: '' };
    }),
  );
}

/** What waits, the latest first. */
export const listMessages = async (dataFolder: string): Promise<MessageNote[]> => (await notes(dataFolder)).reverse();

/** Whom a message is to; null where that is not known. */
export async function clientOfMessage(dataFolder: string, name: string): Promise<string | null> {
  const note = (await notes(dataFolder)).find((one) => one.name === name);
  return note ? note.clientId : null;
}

/** The message of a name; null when there is none. */
export const readMessage = (dataFolder: string, name: string): Promise<Buffer | null> =>
  NAME.test(name) ? readFile(join(folderOf(dataFolder), name)).catch(() => null) : Promise.resolve(null);

/** Takes away a message that is there. */
export async function removeMessage(dataFolder: string, name: string): Promise<void> {
  const path = join(folderOf(dataFolder), name);
  await rm(path);
  await rm(noteOf(path), { force: true });
}

export async function removeMessagesOf(dataFolder: string, clientId: string): Promise<void> {
  for (const note of await notes(dataFolder))
    if (note.clientId === clientId) await removeMessage(dataFolder, note.name);
}

/** Writes a message. It is moved into place when it is whole, after its note. */
export async function writeMessage(
  dataFolder: string,
  { clientId, to, subject }: Pick<MessageNote, 'clientId' | 'to' | 'subject'>,
  message: Buffer,
): Promise<OutboxMessage> {
  const told: OutboxMessage = { name: `${uuidv7()}.eml`, to, subject, writtenAt: new Date().toISOString() };
  const path = join(folderOf(dataFolder), told.name);
  await writeFile(noteOf(path), JSON.stringify({ ...told, clientId } satisfies MessageNote), {
    mode: 0o600,
    flush: true,
  });
  await writeFile(`${path}.part`, message, { mode: 0o600, flush: true });
  await rename(`${path}.part`, path);
  return told;
}
