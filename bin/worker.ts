import { startWorker } from '@/jobs';
import { logger } from '@/log';
import type { Command } from './options';

export const command: Command = {
  usage: 'worker',
  async run() {
    const stop = await startWorker();
    logger.info('worker runs');
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => void stop().finally(() => process.exit(0)));
    return undefined;
  },
};
