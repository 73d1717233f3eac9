import { Refusal, done, orThrow, refused, type Result } from '@/core/refusal';
import { logOnce } from '@/log';
import { inNameOf } from '../people';
import { troubleOf } from '../trouble';
import { TASKS, type TaskAnswer, type TaskArguments, type TaskName } from './tasks';
import { thinkerFor, type Answered, type Question } from './thinker';

export type { DocketSums } from './tasks';

/** Does a task: in the process beside this one, or here where there is none. Throws what the task refuses, and 503 where it is lost. */
export async function think<N extends TaskName>(name: N, ...args: TaskArguments<N>): Promise<TaskAnswer<N>> {
  const thinker = thinkerFor(name);
  return thinker ? orThrow(await thinker.ask(name, args)) : run(name, args);
}

const BY_NAME: { readonly [N in TaskName]: (...args: TaskArguments<N>) => Promise<TaskAnswer<N>> } = TASKS;

async function run<N extends TaskName>(name: N, args: TaskArguments<N>): Promise<TaskAnswer<N>> {
  return BY_NAME[name](...args);
}

/** What asks and is answered: of a process, its line to the one that started it. */
interface Line {
  on(event: 'message', hear: (asked: Question) => void): unknown;
  send?(answer: Answered): unknown;
}

/** The other end: does what it is asked for, all at once and in slices. */
export function serveTasks(line: Line): void {
  line.on('message', ({ id, name, args }) => {
    const [actor] = args as TaskArguments<TaskName>;
    void inNameOf(actor, () => run(name, args as TaskArguments<TaskName>))
      .then(done<unknown>, refusedBy)
      .then((result) => line.send?.({ id, result }));
  });
}

function refusedBy(error: unknown): Result<unknown> {
  const told = error instanceof Refusal ? error : troubleOf(error);
  if (told !== error) logOnce(error, 'task failed');
  return told
    ? refused(told.problems, told.message, told.status)
    : refused([], 'Something went wrong on the server. Nothing was changed. Try again in a moment.', 500);
}
