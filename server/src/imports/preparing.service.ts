/** The thread in which what comes from outside is read and checked, so that nobody waits for it. */
import { Worker } from 'node:worker_threads';

import { Injectable, type OnApplicationShutdown } from '@nestjs/common';

import { StudioFolder } from '../database/studio-folder.js';
import { threadFile } from '../database/thread-file.js';
import type { Answered, Asked } from './preparing.js';

type Task = Asked extends infer A ? (A extends { task: number } ? Omit<A, 'task'> : never) : never;

@Injectable()
export class PreparingService implements OnApplicationShutdown {
  private thread: Worker | undefined;
  private readonly asked = new Map<number, { done: (answer: Answered) => void; failed: (error: Error) => void }>();
  private tasks = 0;

  constructor(private readonly folder: StudioFolder) {}

  ask(task: Task): Promise<Answered> {
    this.tasks += 1;
    const number = this.tasks;
    const answer = new Promise<Answered>((done, failed) => this.asked.set(number, { done, failed }));
    this.worker().postMessage({ ...task, task: number });
    return answer;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.thread?.terminate();
    this.thread = undefined;
  }

  private worker(): Worker {
    if (this.thread) return this.thread;
    const thread = new Worker(threadFile('preparing'), { workerData: this.folder.database });
    // A thread that waits for work must not keep the server alive.
    thread.unref();
    thread.on('message', (answer: Answered) => {
      this.asked.get(answer.task)?.done(answer);
      this.asked.delete(answer.task);
    });
    thread.on('error', (error: Error) => {
      this.thread = undefined;
      for (const { failed } of this.asked.values()) failed(error);
      this.asked.clear();
    });
    return (this.thread = thread);
  }
}
