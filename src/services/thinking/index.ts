import type { MessagePort } from 'node:worker_threads';
import { Refusal, done, orThrow, refused, type Result } from '@/core';
import { logOnce } from '@/log';
import { troubleOf } from '../trouble';
import { TASKS, type TaskAnswer, type TaskArguments, type TaskName } from './tasks';
import { Thinker, commandThread, type Answered, type Asked } from './thinker';

export type { DocketSums } from './tasks';

/** Next compiles each route on its own: what must be one in a process hangs here. */
const shared = globalThis as typeof globalThis & { lanternpostThinker?: Thinker };

/** From here on this process's tasks are done by a thread of `command`. */
export function thinkBeside(command: string): void {
  shared.lanternpostThinker ??= new Thinker(commandThread(command));
}

/** Does a task: in the thread beside this process, or here where there is none. Throws what the task refuses, and 503 where it is lost. */
export async function think<N extends TaskName>(name: N, ...args: TaskArguments<N>): Promise<TaskAnswer<N>> {
  const { lanternpostThinker: thinker } = shared;
  return thinker ? orThrow(await thinker.ask(name, args)) : run(name, args);
}

const BY_NAME: { readonly [N in TaskName]: (...args: TaskArguments<N>) => Promise<TaskAnswer<N>> } = TASKS;

async function run<N extends TaskName>(name: N, args: TaskArguments<N>): Promise<TaskAnswer<N>> {
  return BY_NAME[name](...args);
}

/** The thread's own end: does what it is asked for, all at once and in slices. */
export function serveTasks(port: Pick<MessagePort, 'on' | 'postMessage'>): void {
  port.on('message', ({ id, name, args }: Asked) => {
    void run(name, args as TaskArguments<TaskName>)
      .then(done<unknown>, refusedBy)
      .then((result) => port.postMessage({ id, result } satisfies Answered));
  });
}

function refusedBy(error: unknown): Result<unknown> {
  const told = error instanceof Refusal ? error : troubleOf(error);
  if (told !== error) logOnce(error, 'task failed');
  return told
    ? refused(told.problems, told.message, told.status)
    : refused([], 'Something went wrong here: nothing was changed. Try again in a moment.', 500);
}
