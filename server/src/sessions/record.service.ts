/** What all sessions teach about one client: trials, sets by movement, how often a fault shows. Other clients' trials go out without their names. */
import { Injectable } from '@nestjs/common';
import type { ClientRecord } from '@waxwing/core/formats';
import {
  faultLoadOf,
  fold,
  movesOf,
  setsOf,
  stillHurting,
  tallyFaults,
  trialsOf,
  type Lane,
  type SessionEvent,
  type SessionState,
} from '@waxwing/core/session';
import { DataSource } from 'typeorm';
import { ClientsService } from '../clients/clients.service.js';
import { LibraryService } from '../movements/library.service.js';

@Injectable()
export class RecordService {
  constructor(
    private readonly database: DataSource,
    private readonly clients: ClientsService,
    private readonly library: LibraryService,
  ) {}

  /** @throws 404 */
  async of(clientId: string): Promise<ClientRecord> {
    await this.clients.read(clientId);
    const record: ClientRecord = { trials: [], sets: {}, faults: {}, hurt: [], moves: [], faultLoads: [] };
    const lanes: Lane[] = [];
    for (const state of await this.states())
      for (const lane of Object.values(state.lanes)) {
        const own = lane.clientId === clientId;
        for (const trial of trialsOf(lane, this.library.find))
          record.trials.push(own ? trial : { ...trial, clientId: 'another' });
        if (!own) continue;
        lanes.push(lane);
        record.moves.push(...movesOf(lane));
        const load = faultLoadOf(lane);
        if (load) record.faultLoads.push(load);
        for (const [movementId, past] of setsOf(lane, this.library.find)) (record.sets[movementId] ??= []).push(past);
      }
    const entries = lanes.flatMap((lane) => lane.entries);
    record.faults = Object.fromEntries(tallyFaults(entries, this.library.find));
    record.hurt = stillHurting(lanes);
    return record;
  }

  /** All sessions folded, as long as no event was added or taken away: the record of each client rests on the same. */
  private folded: { stamp: string; states: SessionState[] } | undefined;

  /** Every session folded, earliest first. */
  private async states(): Promise<SessionState[]> {
    const [row] = await this.database.query<{ stamp: string }[]>(
      `SELECT count(*) || ' ' || ifnull(max(rowid), 0) || ' ' || ifnull(max(receivedAt), '') AS stamp FROM events`,
    );
    const stamp = row?.stamp ?? '';
    if (this.folded?.stamp !== stamp) this.folded = { stamp, states: await this.foldAll() };
    return this.folded.states;
  }

  private async foldAll(): Promise<SessionState[]> {
    const bySession = new Map<string, SessionEvent[]>();
    // Read past the entities, which would take longer than everything else.
    const rows = await this.database.query<{ sessionId: string; document: string }[]>(
      'SELECT sessionId, document FROM events',
    );
    for (const { sessionId, document } of rows) {
      const event = JSON.parse(document) as SessionEvent;
      const known = bySession.get(sessionId);
      if (known) known.push(event);
      else bySession.set(sessionId, [event]);
    }
    return [...bySession.values()]
      .map((events) => fold(events, [...new Set(events.map((event) => event.clientId))]))
      .sort((a, b) => (a.log[0]?.at ?? '').localeCompare(b.log[0]?.at ?? ''));
  }
}
