/** Rows that cannot be read: each is set apart and named, and takes nothing else with it. */
import { Injectable, type OnModuleInit } from '@nestjs/common';
import type { Damaged } from '@waxwing/core/client';
import type { SessionEvent } from '@waxwing/core/session';
import { DataSource } from 'typeorm';

import { ProblemException } from '../problems/problem.js';
import { plainFrom } from '../sealed/columns.js';
import { eventFrom } from '../sealed/sealed-event.js';
import { StudioFolder } from './studio-folder.js';

/** Small tables that are looked through at start, with the columns that hold JSON. Sessions and events are met when they are read. */
const LOOKED_THROUGH = {
  clients: ['readiness', 'today', 'benchmarks', 'limits', 'cleared', 'painsOver', 'kit', 'houseRules'],
  plans: ['document'],
  movements: ['document'],
  studio: ['kit', 'houseRules'],
} as const;

const WHAT = { clients: 'client', plans: 'plan', movements: 'movement', studio: 'studio' } as const;
/** More than this nobody reads. */
const MOST = 100;

@Injectable()
export class DamageService implements OnModuleInit {
  private readonly found = new Map<string, Damaged>();

  constructor(
    private readonly database: DataSource,
    private readonly folder: StudioFolder,
  ) {}

  async onModuleInit(): Promise<void> {
    for (const table of Object.keys(LOOKED_THROUGH) as (keyof typeof LOOKED_THROUGH)[]) {
      const bad = LOOKED_THROUGH[table].map((column) => `(${column} IS NOT NULL AND NOT json_valid(${column}))`);
      const name = table === 'movements' ? 'id' : 'name';
      const rows = await this.database.query<{ id: string; name: string }[]>(
        `SELECT id, ${name} AS name FROM ${table} WHERE ${bad.join(' OR ')} LIMIT ${MOST}`,
      );
      for (const { id, name: called } of rows) {
        const plain = plainFrom(this.folder.sealer, called, table, name, { id });
        this.note({ what: WHAT[table], id: String(id), name: plain ?? '' });
      }
    }
  }

  /** What was found so far. */
  list(): Damaged[] {
    return [...this.found.values()];
  }

  /** What is stored of an event; undefined for a damaged one, which is noted. */
  event(text: string, id: string, place: number): SessionEvent | undefined {
    const event = eventFrom(text, this.folder.sealer);
    if (!event) this.note({ what: 'event', id, name: `number ${place}` });
    return event;
  }

  /** The answer for a row that was asked for by name and cannot be read. */
  refuse(what: Damaged['what'], id: string, name: string): ProblemException {
    this.note({ what, id, name });
    return new ProblemException(500, `This ${what} is damaged on the disk. Bring back a backup: Studio lists them.`);
  }

  private note(one: Damaged): void {
    if (this.found.size < MOST) this.found.set(`${one.what} ${one.id}`, one);
  }
}
