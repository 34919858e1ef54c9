/** A thread beside the server that answers one question after the other: what takes seconds is done there, and nobody else waits for it. */
import { Worker } from 'node:worker_threads';

import { threadFile } from './thread-file.js';

interface Numbered {
  task: number;
}

export class Thread<Question extends object, Answer extends object> {
  private worker: Worker | undefined;
  private readonly asked = new Map<number, { done: (answer: Answer) => void; failed: (error: Error) => void }>();
  private tasks = 0;

  /**
   * @param name of its program
   * @param data what it is given when it starts, which is when it is first asked
   */
  constructor(
    private readonly name: string,
    private readonly data: unknown,
  ) {}

  /** @throws what ended the thread; the next question starts another */
  ask(question: Question): Promise<Answer> {
    this.tasks += 1;
    const task = this.tasks;
    const answer = new Promise<Answer>((done, failed) => this.asked.set(task, { done, failed }));
    this.started().postMessage({ ...question, task });
    return answer;
  }

  async end(): Promise<void> {
    await this.worker?.terminate();
    this.broken(new Error('the server is ending'));
  }

  private started(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(threadFile(this.name), { workerData: this.data });
    // A thread that waits for work must not keep the server alive.
    worker.unref();
    worker.on('message', (answer: Answer & Numbered) => {
      this.asked.get(answer.task)?.done(answer);
      this.asked.delete(answer.task);
    });
    worker.on('error', (error: Error) => this.broken(error));
    return (this.worker = worker);
  }

  /** Nobody waits for what is not answered any more. */
  private broken(error: Error): void {
    this.worker = undefined;
    for (const { failed } of this.asked.values()) failed(error);
    this.asked.clear();
  }
}
