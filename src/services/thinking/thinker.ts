import { Worker } from 'node:worker_threads';
import { refused, type Result } from '@/core';
import { logger } from '@/log';
import type { TaskAnswer, TaskArguments, TaskName } from './tasks';

/** A question to the thread, and its answer. */
export interface Asked {
  readonly id: number;
  readonly name: TaskName;
  readonly args: readonly unknown[];
}
export interface Answered {
  readonly id: number;
  readonly result: Result<unknown>;
}

/** So long a task may take before its thread is taken to stand still, in milliseconds. */
const DEADLINE_MS = 150_000;
const MOST_MEMORY_MB = 2048;

interface Waiting {
  readonly name: TaskName;
  readonly timer: NodeJS.Timeout;
  resolve(result: Result<unknown>): void;
}

const LOST = refused(
  [],
  'Working this out took too long or too much memory: try again, or make the plan smaller.',
  503,
);

/**
 * A thread beside this process's own, which has what takes long: whoever waits for something else does not wait for it. One that ends,
 * or stands still past the deadline, is started anew; who waited for it is told.
 */
export class Thinker {
  private thread: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private count = 0;
  private closed = false;

  constructor(
    private readonly start: () => Worker,
    private readonly deadlineMs = DEADLINE_MS,
  ) {
    this.open();
  }

  /** A result and nothing thrown: who asks may have a copy of its own of what is thrown. */
  ask<N extends TaskName>(name: N, args: TaskArguments<N>): Promise<Result<TaskAnswer<N>>> {
    const id = ++this.count;
    const thread = this.thread ?? this.open();
    return new Promise((resolve) => {
      const timer = setTimeout(
        () => this.giveUp(thread, `${name} took longer than ${this.deadlineMs} ms`),
        this.deadlineMs,
      );
      this.waiting.set(id, { name, timer, resolve: resolve as Waiting['resolve'] });
      thread.postMessage({ id, name, args } satisfies Asked);
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.thread?.terminate();
  }

  private open(): Worker {
    const thread = this.start();
    thread.unref();
    this.thread = thread;
    thread.on('message', (answer: Answered) => this.hear(answer));
    thread.on('error', (error) => this.giveUp(thread, error.message));
    thread.on('exit', () => this.giveUp(thread, 'it ended'));
    return thread;
  }

  private hear(answer: Answered): void {
    const waiting = this.waiting.get(answer.id);
    if (!waiting) return;
    this.waiting.delete(answer.id);
    clearTimeout(waiting.timer);
    waiting.resolve(answer.result);
  }

  private giveUp(thread: Worker, why: string): void {
    if (this.thread !== thread) return;
    this.thread = null;
    if (!this.closed)
      logger.error(
        { why, tasks: [...this.waiting.values()].map((one) => one.name) },
        'the thread that compiles is started anew',
      );
    void thread.terminate();
    for (const { timer, resolve } of this.waiting.values()) {
      clearTimeout(timer);
      resolve(LOST);
    }
    this.waiting.clear();
  }
}

/** The thread as the command line runs it: `command` is its program, called with `think`. */
export const commandThread = (command: string) => (): Worker =>
  new Worker(command, { argv: ['think'], resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB } });
