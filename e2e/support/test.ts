import { execFileSync } from 'node:child_process';
import { test as base } from '@playwright/test';
import { learnSecrets, secretsInLogs } from './secrets';
import { FIRST_PORT, INSTANCE_TEMPLATE, dataFolder, removeData, startLanternpost } from './instance';

/** Ports of the instances lie so far apart: a web server, a gateway, a database, and what a test starts besides. */
const PORTS_APART = 20;

/**
 * Every spec runs on an instance of its own, with a copy of the sample network, so that no spec sees the changes of another,
 * and several run side by side. Where it is, `server()` and `bindDatabase()` read from this worker's environment.
 */
export const test = base.extend<{ learning: void }, { instance: void }>({
  learning: [
    async ({ context }, use) => {
      learnSecrets(context);
      await use();
    },
    { auto: true },
  ],
  instance: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads from the pattern that nothing else is needed
    async ({}, use, { workerIndex }) => {
      const name = `e2e-${workerIndex}`;
      await removeData(dataFolder(name));
      // With its owners: PostgreSQL starts in a folder of its own user alone.
      execFileSync('cp', ['-a', dataFolder(INSTANCE_TEMPLATE), dataFolder(name)]);
      const { url, pid, data, stop } = await startLanternpost(
        name,
        FIRST_PORT + workerIndex * PORTS_APART,
        true,
        false,
      );
      Object.assign(process.env, { LANTERNPOST_URL: url, LANTERNPOST_PID: String(pid), LANTERNPOST_E2E_DATA: data });
      await use();
      await stop();
      const { found } = secretsInLogs(data);
      await removeData(data);
      if (found.length > 0) throw new Error(`${found.length} secrets of this run are in a log.`);
    },
    { scope: 'worker', auto: true, timeout: 180_000 },
  ],
});

export { expect } from '@playwright/test';
