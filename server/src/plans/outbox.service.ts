/** The outbox: messages as standard .eml files in a folder, for any mail program to send. Waxwing itself sends nothing. */
import { Inject, Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { OutboxMessage, StoredPlan } from '@waxwing/core/formats';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Repository } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { ClientsService } from '../clients/clients.service.js';
import { CONFIG, type Config } from '../config.js';
import { invalid, notFound } from '../problems/problem.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { SheetsService } from './sheets.service.js';

/** Names that this service makes: nothing else in the folder is touched. */
const NAME = /^[0-9a-f-]{36}\.eml$/;

/** One header of a message, its folded lines joined and its encoded words read. */
function header(message: string, name: string): string {
  const head = message.slice(0, message.indexOf('\r\n\r\n')).replaceAll(/\r\n[ \t]+/g, ' ');
  const found = new RegExp(`^${name}: (.*)$`, 'im').exec(head)?.[1]?.trim() ?? '';
  return found.replaceAll(/=\?utf-8\?(q|b)\?([^?]*)\?=\s?/gi, (_, kind: string, text: string) =>
    kind.toLowerCase() === 'b'
      ? Buffer.from(text, 'base64').toString()
      : Buffer.from(
          text
            .replaceAll('_', ' ')
            .replaceAll(/=([0-9A-F]{2})/gi, (__, hex: string) => String.fromCharCode(parseInt(hex, 16))),
          'latin1',
        ).toString(),
  );
}

@Injectable()
export class OutboxService {
  private readonly folder: string;

  constructor(
    @Inject(CONFIG) config: Config,
    @InjectRepository(StudioEntity) private readonly studios: Repository<StudioEntity>,
    private readonly clients: ClientsService,
    private readonly sheets: SheetsService,
  ) {
    this.folder = join(config.dataFolder, 'outbox');
  }

  /** Latest first. */
  async list(): Promise<OutboxMessage[]> {
    const names = (await readdir(this.folder).catch(() => [])).filter((name) => NAME.test(name));
    const messages = await Promise.all(
      names.map(async (name): Promise<OutboxMessage> => {
        const path = join(this.folder, name);
        const text = await readFile(path, 'latin1');
        const { mtime } = await stat(path);
        return { name, to: header(text, 'To'), subject: header(text, 'Subject'), writtenAt: mtime.toISOString() };
      }),
    );
    return messages.sort((a, b) => (a.name < b.name ? 1 : -1));
  }

  /** @throws 404 */
  async read(name: string): Promise<Buffer> {
    return NAME.test(name)
      ? readFile(join(this.folder, name)).catch(() => Promise.reject(notFound('message', name)))
      : Promise.reject(notFound('message', name));
  }

  /** @throws 404 */
  async remove(name: string): Promise<void> {
    await this.read(name);
    await rm(join(this.folder, name));
  }

  /** Writes a client's sheet as a message with the PDF attached. @throws 422 without an address */
  async send(plan: StoredPlan, clientId: string, to?: string): Promise<OutboxMessage> {
    const client = await this.clients.read(clientId);
    const studio = await this.studios.findOneByOrFail({ id: 1 });
    const address = to ?? client.email;
    if (!address) throw invalid([{ path: 'to', message: `is missing, and ${client.name} has no address` }]);
    const { default: MailComposer } = await import('nodemailer/lib/mail-composer/index.js');
    const mail = new MailComposer({
      from: { name: studio.trainer || studio.name, address: 'trainer@localhost' },
      to: { name: client.name, address },
      subject: plan.name,
      text: await this.sheets.markdown(plan, clientId),
      attachments: [
        { filename: 'sheet.pdf', content: await this.sheets.pdf(plan, clientId, 'a4'), contentType: 'application/pdf' },
        ...(plan.startsAt === null
          ? []
          : [{ filename: 'session.ics', content: await this.sheets.calendar(plan), contentType: 'text/calendar' }]),
      ],
    });
    const name = `${uuidv7()}.eml`;
    await mkdir(this.folder, { recursive: true });
    // Written beside and moved into place: a message is whole or not there.
    await writeFile(join(this.folder, `${name}.part`), await mail.compile().build());
    await rename(join(this.folder, `${name}.part`), join(this.folder, name));
    return { name, to: address, subject: plan.name, writtenAt: new Date().toISOString() };
  }
}
