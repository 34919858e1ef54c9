/** What takes too long for the thread in which everybody is served. */
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Sheet } from '@waxwing/core/formats';
import type { Health } from '@waxwing/core/ladder';

import { CONFIG, type Config } from '../config.js';
import { StudioFolder } from '../database/studio-folder.js';
import type { Paper } from '../plans/sheet-pdf.js';
import type { HeavyAnswer, HeavyData, HeavyQuestion } from './heavy.js';
import { Thread } from './thread.js';

@Injectable()
export class HeavyService implements OnApplicationShutdown {
  private readonly thread: Thread<HeavyQuestion, HeavyAnswer>;

  constructor(
    @Inject(CONFIG) { faultKinds, figures, figuresChecked, figuresProven }: Config,
    { database }: StudioFolder,
  ) {
    const data: HeavyData = { database, faultKinds, figures, figuresChecked, figuresProven };
    this.thread = new Thread('heavy', data);
  }

  /** Where the library as it is stored is thin or wrong. */
  async health(): Promise<Health> {
    const answer = await this.asked({ do: 'health' });
    if (!('health' in answer)) throw new Error('the thread answered something else');
    return answer.health;
  }

  /** @param stills by movement, its pictures as SVG */
  async pdf(
    sheet: Sheet,
    date: string | null,
    paper: Paper,
    stills: Readonly<Record<string, string[]>>,
  ): Promise<Buffer> {
    const answer = await this.asked({ do: 'sheet', sheet, date, paper, stills });
    if (!('pdf' in answer)) throw new Error('the thread answered something else');
    return Buffer.from(answer.pdf);
  }

  onApplicationShutdown(): Promise<void> {
    return this.thread.end();
  }

  private async asked(question: HeavyQuestion): Promise<HeavyAnswer> {
    const answer = await this.thread.ask(question);
    if ('problem' in answer) throw new Error(answer.problem);
    return answer;
  }
}
