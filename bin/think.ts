import { parentPort } from 'node:worker_threads';
import { serveTasks } from '@/services/thinking';
import type { Command } from './options';

/** The thread in which web has what takes long: compiling, forecasting, publishing. */
export const command: Command = {
  usage: 'think   (web runs it in a thread of its own)',
  async run() {
    if (!parentPort) {
      console.error('This runs in a thread of `lanternpost web` alone: start that.');
      return 2;
    }
    serveTasks(parentPort);
    return undefined;
  },
};
