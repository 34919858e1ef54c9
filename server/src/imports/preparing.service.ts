/** The thread in which what comes from outside is read and checked. */
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';

import { StudioFolder } from '../database/studio-folder.js';
import { Thread } from '../threads/thread.js';
import type { Answered, Asked } from './preparing.js';

type Question = Asked extends infer A ? (A extends { task: number } ? Omit<A, 'task'> : never) : never;

@Injectable()
export class PreparingService implements OnApplicationShutdown {
  private readonly thread: Thread<Question, Answered>;

  constructor({ database }: StudioFolder) {
    this.thread = new Thread('preparing', database);
  }

  ask(question: Question): Promise<Answered> {
    return this.thread.ask(question);
  }

  onApplicationShutdown(): Promise<void> {
    return this.thread.end();
  }
}
