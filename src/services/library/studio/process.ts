import type { ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { logger } from '@/log';
import type { Drawing } from './drawing';
import { startTool } from './sandbox';

/** What is asked of the process that draws, and what it answers. */
interface DrawingQuestion {
  readonly id: number;
  readonly name: keyof Drawing;
  readonly args: readonly unknown[];
}
interface Answered {
  readonly id: number;
  readonly value?: unknown;
  /** What went wrong, in its own words. */
  readonly error?: string;
}

/** A picture that could not be read, or that took the process with it. */
export class Undrawable extends Error {}

/** So long one step may take, in milliseconds. */
const WITHIN_MS = 60_000;
const MEMORY_BYTES = 6 * 2 ** 30;

type Arguments<N extends keyof Drawing> = Parameters<Drawing[N]>;
type Answer<N extends keyof Drawing> = ReturnType<Drawing[N]>;

/** One process that draws, one picture at a time. If it ends or hangs, it is started again, and only that picture fails. */
class Hand {
  private child: ChildProcess | null = null;
  private count = 0;

  constructor(private readonly withinMs: number) {}

  ask<N extends keyof Drawing>(name: N, args: Arguments<N>): Promise<Answer<N>> {
    const id = ++this.count;
    const child = (this.child ??= this.open());
    return new Promise((resolve, reject) => {
      const end = (settle: () => void) => {
        clearTimeout(timer);
        child.off('message', hear).off('exit', gone).off('error', gone);
        settle();
      };
      const gone = () => {
        if (this.child === child) this.child = null;
        child.kill('SIGKILL');
        logger.warn({ name }, 'the drawing process is being restarted');
        end(() => reject(new Undrawable(`${name} took all that it may`)));
      };
      const hear = ({ id: of, value, error }: Answered) => {
        if (of !== id) return;
        end(() => (error === undefined ? resolve(value as Answer<N>) : reject(new Undrawable(error))));
      };
      const timer = setTimeout(gone, this.withinMs);
      child.on('message', hear).once('exit', gone).once('error', gone);
      child.send({ id, name, args } satisfies DrawingQuestion, (error) => error && gone());
    });
  }

  private open(): ChildProcess {
    const child = startTool(
      process.execPath,
      [
        '--max-old-space-size=512',
        join(process.env.LANTERNPOST_BIN ?? join(/* turbopackIgnore: true */ process.cwd(), 'bin'), 'draw.mjs'),
      ],
      ['ignore', 'ignore', 'inherit', 'ipc'],
      // It draws one picture after the other: its processor time is bounded by each one's deadline.
      { memoryBytes: MEMORY_BYTES, cpuSeconds: 7 * 86_400 },
    );
    child.unref();
    child.channel?.unref();
    return child;
  }
}

const free: Hand[] = [];

/** Does a step with a picture in a process of its own. Throws Undrawable for what can't be read, or takes too much. */
export async function draw<N extends keyof Drawing>(name: N, ...args: Arguments<N>): Promise<Answer<N>> {
  const hand = free.pop() ?? new Hand(WITHIN_MS);
  try {
    return await hand.ask(name, args);
  } finally {
    free.push(hand);
  }
}
