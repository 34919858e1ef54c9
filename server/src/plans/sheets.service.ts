/** A client's sheet of a plan, from everything that is known here: as data, Markdown, PDF, and its date as a calendar file. */
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { clientOnDay, placeOf } from '@waxwing/core/client';
import { type ClientRecord, NO_EVIDENCE } from '@waxwing/core/coaching';
import { becauseWords, type Sheet, sheetMarkdown, sheetOf } from '@waxwing/core/formats';
import { figureIdOf, kitCounts, tagsInForce, underRules } from '@waxwing/core/movement';
import { secondsOf, type StoredPlan, timelineOf } from '@waxwing/core/planning';
import { fitNow, heldBetween, isOpen, standingOf } from '@waxwing/core/progress';
import { Repository } from 'typeorm';

import { ClientsService } from '../clients/clients.service.js';
import { FiguresService } from '../movements/figures.service.js';
import { HouseRulesService } from '../movements/house-rules.service.js';
import { LibraryService } from '../movements/library.service.js';
import { invalid } from '../problems/problem.js';
import { RecordService } from '../sessions/record.service.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { HeavyService } from '../threads/heavy.service.js';
import { calendarOf } from './calendar.js';
import type { Paper } from './sheet-pdf.js';

@Injectable()
export class SheetsService {
  constructor(
    @InjectRepository(StudioEntity) private readonly studios: Repository<StudioEntity>,
    private readonly clients: ClientsService,
    private readonly records: RecordService,
    private readonly library: LibraryService,
    private readonly houseRules: HouseRulesService,
    private readonly figures: FiguresService,
    private readonly heavy: HeavyService,
  ) {}

  /** @throws 404, 422 when the client is not in the plan */
  async sheet(plan: StoredPlan, clientId = plan.clientIds[0] ?? ''): Promise<Sheet> {
    if (!plan.clientIds.includes(clientId)) throw invalid([{ path: 'clientId', message: 'is not in this plan' }]);
    const client = await this.clients.read(clientId);
    const studio = await this.studios.findOneByOrFail({ id: 1 });
    const records = new Map<string, ClientRecord>();
    for (const id of plan.clientIds) records.set(id, await this.records.of(id));
    const {
      sets = {},
      faults = {},
      hurt = [],
      pains = [],
      setUps = [],
      ...known
    }: Partial<ClientRecord> = records.get(clientId) ?? {};
    const now = new Date().toISOString();
    const standing = standingOf(clientOnDay(client, localDay()), { hurt, pains });
    const tags = tagsInForce(this.houseRules.rules, studio.houseRules, client.houseRules, standing.limits);
    const place = placeOf(plan.place, studio, [client]);
    const kit = kitCounts(place.kit);
    const seconds = secondsOf(
      timelineOf(plan, {
        find: (id) => this.library.summary(id),
        knows: (who, id) => records.get(who)?.sets[id] !== undefined,
      }),
    );
    const open = (steps: readonly { to: string; name: string }[]): string | null =>
      steps.find(({ to }) => {
        const movement = this.library.find(to);
        return movement && isOpen(fitNow(standing, kit, movement));
      })?.name ?? null;
    /** Nobody goes up alone while something speaks against it. */
    const mayGoUp = (id: string): boolean => {
      const movement = this.library.summary(id);
      if (!movement) return false;
      const { ladder } = this.library;
      const question = { standing, movement, purpose: plan.purpose, kit: place.kit, ladder, sets };
      return heldBetween({ ...question, find: this.library.summary }) === null;
    };
    return sheetOf({
      plan,
      client,
      studio,
      where: place.name,
      minutes: Math.ceil(seconds / 60),
      find: (id) => {
        const movement = this.library.find(id);
        return movement && underRules(movement, tags);
      },
      neighbours: (id) => {
        const { easier, harder } = this.library.page(id);
        return { easier: open(easier), harder: mayGoUp(id) ? open(harder) : null };
      },
      closed: (id) => {
        const movement = this.library.find(id);
        const fit = movement && fitNow(standing, kit, movement);
        // A sheet of the studio may be taken to where something else does as well.
        const unknown = fit?.code === 'kit' && plan.place.kind === 'studio';
        return fit && !isOpen(fit) && !unknown ? becauseWords(fit.because) : null;
      },
      evidence: { ...NO_EVIDENCE, ...known },
      sets,
      faults,
      setUps,
      now,
    });
  }

  markdown(sheet: Sheet): string {
    return sheetMarkdown(sheet, dateWords(sheet.startsAt));
  }

  pdf(sheet: Sheet, paper: Paper): Promise<Buffer> {
    const { of: stillOf } = this.figures.stills;
    const stills = sheet.blocks.flatMap(({ lines }) =>
      lines.map(({ movementId }): [string, string[]] => {
        const id = figureIdOf(this.library.find(movementId) ?? { id: movementId });
        return [movementId, [stillOf(id, 'start'), stillOf(id)].filter((still) => still !== undefined)];
      }),
    );
    return this.heavy.pdf(sheet, dateWords(sheet.startsAt), paper, Object.fromEntries(stills));
  }

  /** @throws 422 when no date is set */
  async calendar(plan: StoredPlan): Promise<string> {
    const studio = await this.studios.findOneByOrFail({ id: 1 });
    if (plan.startsAt === null) throw invalid([{ path: 'startsAt', message: 'is not set: choose a date first' }]);
    return calendarOf([plan], studio.name);
  }
}

/** `Thu 28 November 2030, 16:00`, in the zone of the machine that serves. */
const dateWords = (iso: string | null): string | null =>
  iso &&
  new Intl.DateTimeFormat('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  }).format(new Date(iso));

/** Today as the people here count it, YYYY-MM-DD. */
const localDay = (): string => new Date().toLocaleDateString('en-CA');
