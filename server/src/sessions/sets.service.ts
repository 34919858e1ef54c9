/** Sets as rows, of a session or of a client: what is done with them elsewhere is the trainer's business. */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { setRows, type SetRow } from '@waxwing/core/formats';
import { fold } from '@waxwing/core/session';
import { Repository } from 'typeorm';
import { ClientsService } from '../clients/clients.service.js';
import { LibraryService } from '../movements/library.service.js';
import { EventEntity } from './session.entities.js';
import { SessionsService } from './sessions.service.js';

@Injectable()
export class SetsService {
  constructor(
    @InjectRepository(EventEntity) private readonly events: Repository<EventEntity>,
    private readonly sessions: SessionsService,
    private readonly clients: ClientsService,
    private readonly library: LibraryService,
  ) {}

  /** @throws 404 */
  async ofSession(id: string): Promise<SetRow[]> {
    const { state, clients } = await this.sessions.read(id);
    const names = new Map(clients.map((client) => [client.id, client.name]));
    return setRows(state, id, (clientId) => names.get(clientId) ?? '', this.library.find);
  }

  /** @throws 404 */
  async ofClient(id: string): Promise<SetRow[]> {
    const { name } = await this.clients.read(id);
    const own = await this.events
      .createQueryBuilder('event')
      .where(`event.document ->> 'clientId' = :id`, { id })
      .getMany();
    const sessions = [...new Set(own.map(({ sessionId }) => sessionId))];
    return sessions
      .flatMap((sessionId) => {
        const events = own.flatMap((row) => (row.sessionId === sessionId ? [row.document] : []));
        return setRows(fold(events, [id]), sessionId, () => name, this.library.find);
      })
      .sort((a, b) => a.at.localeCompare(b.at));
  }
}
