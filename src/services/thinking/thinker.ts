import { fork, type ChildProcess } from 'node:child_process';
import type { Result } from '@/core/refusal';
import { logger } from '@/log';
import type { TaskAnswer, TaskArguments, TaskName } from './tasks';
import { URGENT } from './urgent';

/** A question to the process beside, and its answer. */
export interface Question {
  readonly id: number;
  readonly name: TaskName;
  readonly args: readonly unknown[];
}
export interface Answered {
  readonly id: number;
  readonly result: Result<unknown>;
}

/** So long a task may take before the process beside is taken to stand still, in milliseconds. */
const DEADLINE_MS = 150_000;
const MOST_MEMORY_MB = 2048;

interface Waiting {
  readonly name: TaskName;
  readonly timer: NodeJS.Timeout;
  resolve(result: Result<unknown>): void;
}

const lost = (message: string): Result<never> => ({ ok: false, status: 503, message, problems: [] });
const BROKEN_OFF = lost('This was interrupted. See whether it was done, then try again.');
const TOO_LONG = lost('This took too long to compute. Try again, or make the plan smaller.');

/**
 * A second process for work that takes long, so that other requests neither wait for it nor lack its memory. If it
 * ends, or passes its deadline, it is started again, and the requests that waited for it fail with a message.
 */
export class Thinker {
  private child: ChildProcess | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private count = 0;
  private closed = false;

  constructor(
    private readonly start: () => ChildProcess,
    private readonly deadlineMs = DEADLINE_MS,
  ) {
    this.open();
  }

  /** A result, never an exception: each caller may get a copy of its own of the error. */
  ask<N extends TaskName>(name: N, args: TaskArguments<N>): Promise<Result<TaskAnswer<N>>> {
    const id = ++this.count;
    const child = this.child ?? this.open();
    return new Promise((resolve) => {
      const late = () => this.giveUp(child, `${name} took longer than ${this.deadlineMs} ms`, TOO_LONG);
      this.waiting.set(id, {
        ...{ name, timer: setTimeout(late, this.deadlineMs) },
        resolve: resolve as Waiting['resolve'],
      });
      child.send({ id, name, args } satisfies Question, (error) => error && this.giveUp(child, error.message));
    });
  }

  close(): void {
    this.closed = true;
    this.child?.kill('SIGKILL');
  }

  private open(): ChildProcess {
    const child = this.start();
    child.unref();
    child.channel?.unref();
    this.child = child;
    child.on('message', (answer: Answered) => this.hear(answer));
    child.on('error', (error) => this.giveUp(child, error.message));
    child.on('exit', () => this.giveUp(child, 'it ended'));
    return child;
  }

  private hear(answer: Answered): void {
    const waiting = this.waiting.get(answer.id);
    if (!waiting) return;
    this.waiting.delete(answer.id);
    clearTimeout(waiting.timer);
    waiting.resolve(answer.result);
  }

  private giveUp(child: ChildProcess, why: string, told = BROKEN_OFF): void {
    if (this.child !== child) return;
    this.child = null;
    const tasks = [...this.waiting.values()].map((one) => one.name);
    if (!this.closed) logger.error({ why, tasks }, 'the process that compiles is being restarted');
    child.kill('SIGKILL');
    for (const { timer, resolve } of this.waiting.values()) {
      clearTimeout(timer);
      resolve(told);
    }
    this.waiting.clear();
  }
}

/** What a process beside is there for: its name in a list of processes. */
type Part = 'usual' | 'urgent';

/** The process as the command line runs it: `command` is its program, called with `think`. */
const commandProcess = (command: string, part: Part) => (): ChildProcess =>
  fork(command, ['think', part], { serialization: 'advanced', execArgv: [`--max-old-space-size=${MOST_MEMORY_MB}`] });

/** Next compiles each route on its own: what must be one in a process hangs here. */
const shared = globalThis as typeof globalThis & {
  lanternpostThinkers?: { readonly usual: Thinker; readonly urgent: Thinker };
};

/** From here on this process's tasks are done by two others beside it, which `command` runs: one has what is urgent to itself. */
export function thinkBeside(command: string): void {
  shared.lanternpostThinkers ??= {
    usual: new Thinker(commandProcess(command, 'usual')),
    urgent: new Thinker(commandProcess(command, 'urgent')),
  };
}

/** The process beside this one that does a task; undefined where there is none. */
export const thinkerFor = (name: TaskName): Thinker | undefined =>
  shared.lanternpostThinkers?.[URGENT.has(name) ? 'urgent' : 'usual'];
