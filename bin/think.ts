import { setPriority } from 'node:os';
import { Worker } from 'node:worker_threads';
import { serveTasks } from '@/services/thinking';
import type { Command } from './options';

/** Ends this process when the one that started it is gone, also while it works: a thread of its own looks every second. */
const WATCH = `
  const parent = process.ppid;
  setInterval(() => process.ppid === parent || process.kill(process.pid, 'SIGKILL'), 1000);
`;

/** The priority of long work, from 0 (as others) to 19 (last). */
const LOW_PRIORITY = 10;

/** What takes long, or must not wait, beside web: compiling, forecasting, publishing; firing. */
export const command: Command = {
  usage: 'think usual|urgent   (web runs both beside itself)',
  async run([part]) {
    if (!process.send) {
      console.error('Web alone runs this, beside itself: start `lanternpost web`.');
      return 2;
    }
    // On few processors, pages, players and urgent work go first.
    if (part === 'usual') setPriority(LOW_PRIORITY);
    new Worker(WATCH, { eval: true }).unref();
    process.on('disconnect', () => process.exit(0));
    serveTasks(process);
    return undefined;
  },
};
