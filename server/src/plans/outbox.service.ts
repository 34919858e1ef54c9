/** The outbox: messages as standard .eml files, for any mail program to send. Waxwing itself sends nothing. */
import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Visitor } from '@waxwing/core/door';
import type { OutboxMessage } from '@waxwing/core/formats';
import type { StoredPlan } from '@waxwing/core/planning';
import { Repository } from 'typeorm';

import { ClientsService } from '../clients/clients.service.js';
import { StudioFolder } from '../database/studio-folder.js';
import { AccessService } from '../door/access.service.js';
import { invalid, notFound } from '../problems/problem.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { listMessages, readMessage, removeMessage, sweepMessages, writeMessage } from './messages.js';
import { SheetsService } from './sheets.service.js';

@Injectable()
export class OutboxService implements OnApplicationBootstrap {
  constructor(
    private readonly folder: StudioFolder,
    @InjectRepository(StudioEntity) private readonly studios: Repository<StudioEntity>,
    private readonly clients: ClientsService,
    private readonly sheets: SheetsService,
    private readonly access: AccessService,
  ) {}

  onApplicationBootstrap(): Promise<void> {
    return sweepMessages(this.folder);
  }

  async list(visitor: Visitor): Promise<OutboxMessage[]> {
    const notes = (await listMessages(this.folder)).map((note) => ({ ...note, id: note.clientId }));
    const seen = await this.access.seen(visitor, notes);
    return seen.map(({ clientId: _, id: __, ...message }) => message);
  }

  /** @throws 404 */
  async read(name: string): Promise<Buffer> {
    const message = await readMessage(this.folder, name);
    if (!message) throw notFound('message', name);
    return message;
  }

  /** @throws 404 */
  async remove(name: string): Promise<void> {
    await this.read(name);
    await removeMessage(this.folder, name);
  }

  /** Writes a client's sheet as a message with the PDF attached. @throws 422 without an address */
  async send(plan: StoredPlan, clientId: string, to?: string): Promise<OutboxMessage> {
    const client = await this.clients.read(clientId);
    const studio = await this.studios.findOneByOrFail({ id: 1 });
    const address = to ?? client.email;
    if (!address) throw invalid([{ path: 'to', message: `is missing, and ${client.name} has no address` }]);
    const sheet = await this.sheets.sheet(plan, clientId);
    const { default: MailComposer } = await import('nodemailer/lib/mail-composer/index.js');
    const mail = new MailComposer({
      from: { name: studio.trainer || studio.name, address: 'trainer@localhost' },
      to: { name: client.name, address },
      subject: plan.name,
      text: this.sheets.markdown(sheet),
      attachments: [
        { filename: 'sheet.pdf', content: await this.sheets.pdf(sheet, 'a4'), contentType: 'application/pdf' },
        ...(plan.startsAt === null
          ? []
          : [{ filename: 'session.ics', content: await this.sheets.calendar(plan), contentType: 'text/calendar' }]),
      ],
    });
    const message = await mail.compile().build();
    return writeMessage(this.folder, { clientId, to: address, subject: plan.name }, message);
  }
}
