import { availableParallelism } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import pg from 'pg';
import type PgBoss from 'pg-boss';
import { config } from '@/config';
import { QUEUES, openQueue, rows, type JobName, type Jobs } from '@/database';
import { logger } from '@/log';
import { refreshHolidays } from '@/services/calendars';
import { clearCommands } from '@/services/commands';
import { clearEditions, clearRequests, countArrivals, deliverAgain, publishDue } from '@/services/editions';
import { clearHealth, noteHealth } from '@/services/health';
import { clearGlimpses, compareGlimpse } from '@/services/glimpses';
import {
  checkFiles,
  cleanUp,
  clearUploads,
  clearVersions,
  failRendition,
  failUpload,
  makeRendition,
  processUpload,
} from '@/services/library';
import { clearAttempts, clearInvitations, clearTrail } from '@/services/people';
import { clearPhotos, watchPilots } from '@/services/screens';

/** What each queue's jobs do. Each is safe to run again after a crash. */
const WORK: { [N in JobName]: (data: Jobs[N]) => Promise<void> } = {
  'process-upload': ({ upload }) => processUpload(upload),
  'process-picture': ({ upload }) => processUpload(upload),
  'fit-picture': makeRendition,
  'fit-film': makeRendition,
  deliver: ({ network }) => deliverAgain(network),
  'compare-glimpse': compareGlimpse,
  'clean-up': async () => {
    const now = new Date();
    await clearAttempts();
    await clearInvitations();
    await clearTrail();
    await clearRequests();
    const versions = await clearVersions(now);
    const removed = {
      ...(await clearEditions(now)),
      ...(await cleanUp(now)),
      unfinished: await clearUploads(now),
      versions,
      commands: await clearCommands(now),
      glimpses: await clearGlimpses(now),
      photos: await clearPhotos(now),
      health: await clearHealth(now),
    };
    if (Object.values(removed).some((count) => count > 0)) logger.info(removed, 'cleaned up');
  },
  'check-files': async () => {
    const { files, damaged } = await checkFiles(new Date(), { forMs: CHECK_FOR_MS });
    logger.info({ files, damaged: damaged.length }, 'stored files were checked');
  },
  'refresh-holidays': async () => {
    const changed = await refreshHolidays(new Date());
    if (changed > 0) logger.info({ changed }, 'calendars of public holidays were brought up to date');
  },
};

/** What to do when a job has failed for good. */
const giveUpUpload = ({ upload }: { readonly upload: string }) =>
  failUpload(upload, 'This file could not be processed. Upload it again, or export it again first.');
const GIVE_UP: { [N in JobName]?: (data: Jobs[N]) => Promise<void> } = {
  'process-upload': giveUpUpload,
  'process-picture': giveUpUpload,
  'fit-picture': failRendition,
  'fit-film': failRendition,
};

/** So long stored files are read each hour: at the speed of an ordinary disk some 20 GB. */
const CHECK_FOR_MS = 2 * 60_000;
const SWEEP_EVERY_MS = 3000;
/** How late an edition's number may be: players switch on the instant by themselves. */
const DUE_EVERY_MS = 500;
const COUNT_EVERY_MS = 60_000;
const NOTE_EVERY_MS = 60_000;
const LOOKED_FOR_EVERY_MS = 500;
const LAST_JOB_WITHIN_MS = 5000;

/** How many of a queue's jobs one worker does at once: a picture takes one core, a film both. */
const AT_ONCE: { readonly [N in JobName]?: number } = {
  'process-picture': Math.min(2, availableParallelism()),
};

/**
 * Runs background jobs until the function that is returned is called. While a job runs, its worker holds an advisory lock of
 * its own database session: when the worker is killed the lock falls, and any worker's next sweep starts the job again.
 */
export async function startWorker(): Promise<() => Promise<void>> {
  const boss = await openQueue();
  const locks = new pg.Pool({ connectionString: config().databaseUrl, max: 12 });
  locks.on('error', (error) => logger.warn({ error }, 'a connection of the worker broke; it will connect again'));
  const stopping = new AbortController();
  const running = QUEUES.flatMap((name) =>
    Array.from({ length: AT_ONCE[name] ?? 1 }, () => drain(boss, locks, name, stopping.signal)),
  );
  const timer = setInterval(
    () => void sweep(boss, locks).catch((error: unknown) => logger.warn({ error }, 'sweep failed')),
    SWEEP_EVERY_MS,
  );
  let publishing: Promise<unknown> | null = null;
  const due = setInterval(() => {
    publishing ??= publishDue()
      .then(() => watchPilots())
      .catch((error: unknown) =>
        logger.warn({ error }, 'what is planned and due could not be published: it is tried again'),
      )
      .finally(() => (publishing = null));
  }, DUE_EVERY_MS);
  const counting = setInterval(
    () =>
      void countArrivals(new Date()).catch((error: unknown) =>
        logger.warn({ error }, 'how far editions came could not be counted: it is tried again'),
      ),
    COUNT_EVERY_MS,
  );
  const noteScreens = () =>
    void noteHealth(Date.now()).catch((error: unknown) =>
      logger.warn({ error }, 'how screens are could not be written down: it is tried again in a minute'),
    );
  noteScreens();
  const noting = setInterval(noteScreens, NOTE_EVERY_MS);
  await sweep(boss, locks);
  // What was due while no worker ran is done now, once.
  for (const name of ['clean-up', 'refresh-holidays'] as const)
    await boss.send(name, {}, { singletonKey: name, singletonSeconds: 60 });
  return async () => {
    clearInterval(timer);
    clearInterval(due);
    clearInterval(counting);
    clearInterval(noting);
    await publishing;
    stopping.abort();
    await Promise.race([Promise.all(running), sleep(LAST_JOB_WITHIN_MS)]);
    await boss.stop({ graceful: false, wait: true });
    await locks.end();
  };
}

const LOCK_SQL = 'hashtextextended($1, 7130)';

/** Does a queue's jobs one after the other, and looks for new ones now and then where there are none. */
async function drain(boss: PgBoss, locks: pg.Pool, name: JobName, stopping: AbortSignal): Promise<void> {
  while (!stopping.aborted) {
    const found = await boss
      .fetch<Jobs[JobName]>(name, { includeMetadata: true, batchSize: 1 })
      .catch((error: unknown) => void logger.warn({ error, job: name }, 'the queue does not answer; trying again'));
    const job = found?.[0];
    if (job)
      await runLocked(boss, locks, name, job).catch((error: unknown) =>
        logger.error({ error, job: name }, 'job is lost from sight: a sweep finds it'),
      );
    else await sleep(LOOKED_FOR_EVERY_MS, undefined, { signal: stopping }).catch(() => {});
  }
}

/** Does a job, unless another worker does. The result is written before another worker can begin it. */
async function runLocked(
  boss: PgBoss,
  locks: pg.Pool,
  name: JobName,
  job: PgBoss.JobWithMetadata<Jobs[JobName]>,
): Promise<void> {
  const client = await locks.connect();
  try {
    const { rows: got } = await client.query<{ free: boolean }>(`SELECT pg_try_advisory_lock(${LOCK_SQL}) AS free`, [
      job.id,
    ]);
    if (!got[0]?.free) return;
    try {
      await (WORK[name] as (data: Jobs[JobName]) => Promise<void>)(job.data);
      await boss.complete(name, job.id);
    } catch (error) {
      logger.error({ error, job: name }, 'job failed');
      if (job.retryCount >= job.retryLimit) await giveUp(name, job.data);
      await boss.fail(name, job.id, { reason: String(error) });
    }
  } finally {
    client.release(true);
  }
}

async function giveUp(name: JobName, data: Jobs[JobName]): Promise<void> {
  await (GIVE_UP[name] as ((data: Jobs[JobName]) => Promise<void>) | undefined)?.(data);
}

/** Returns jobs whose worker has died to the queue: they have been active for a while, and their lock is free. */
async function sweep(boss: PgBoss, locks: pg.Pool): Promise<void> {
  const active = await rows<{ id: string; name: JobName; data: Jobs[JobName]; last: boolean }>(
    `SELECT id, name, data, retry_count >= retry_limit AS last FROM pgboss.job WHERE state = 'active' AND started_on < now() - interval '2 seconds'`,
  );
  for (const { id, name, data, last } of active) {
    const client = await locks.connect();
    try {
      const { rows: got } = await client.query<{ free: boolean }>(`SELECT pg_try_advisory_lock(${LOCK_SQL}) AS free`, [
        id,
      ]);
      if (got[0]?.free) {
        logger.warn({ job: name, id }, 'job was left by a worker that died: it starts again');
        await boss.fail(name, id, { reason: 'its worker died' });
        if (last) await giveUp(name, data);
      }
    } finally {
      client.release(true);
    }
  }
}
