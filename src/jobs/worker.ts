import pg from 'pg';
import type PgBoss from 'pg-boss';
import { config } from '@/config';
import { QUEUES, openQueue, rows, type JobName, type Jobs } from '@/database';
import { logger } from '@/log';
import { refreshHolidays } from '@/services/calendars';
import { clearEditions } from '@/services/editions';
import { cleanUp, clearUploads, failUpload, processUpload } from '@/services/library';
import { clearAttempts, clearInvitations, clearTrail } from '@/services/people';

/** What each queue's jobs do. Every one may be run again after a crash. */
const WORK: { [N in JobName]: (data: Jobs[N]) => Promise<void> } = {
  'process-upload': ({ upload }) => processUpload(upload),
  'process-picture': ({ upload }) => processUpload(upload),
  'clean-up': async () => {
    const now = new Date();
    await clearAttempts();
    await clearInvitations();
    await clearTrail();
    const removed = { ...(await clearEditions(now)), ...(await cleanUp(now)), unfinished: await clearUploads(now) };
    if (Object.values(removed).some((count) => count > 0)) logger.info(removed, 'cleaned up');
  },
  'refresh-holidays': async () => {
    const changed = await refreshHolidays(new Date());
    if (changed > 0) logger.info({ changed }, 'calendars of public holidays were brought up to date');
  },
};

/** What to do when a job has failed for good. */
const giveUpUpload = ({ upload }: { readonly upload: string }) =>
  failUpload(upload, 'This file could not be processed: upload it again, or export it anew.');
const GIVE_UP: { [N in JobName]?: (data: Jobs[N]) => Promise<void> } = {
  'process-upload': giveUpUpload,
  'process-picture': giveUpUpload,
};

const SWEEP_EVERY_MS = 3000;

/**
 * Runs background jobs until the function that is returned is called. While a job runs, its worker holds an advisory lock of
 * its own database session: when the worker is killed the lock falls, and any worker's next sweep starts the job again.
 */
export async function startWorker(): Promise<() => Promise<void>> {
  const boss = await openQueue();
  const locks = new pg.Pool({ connectionString: config().databaseUrl, max: 4 });
  locks.on('error', (error) => logger.warn({ error }, 'a connection of the worker broke: the next one is made anew'));
  for (const name of QUEUES)
    await boss.work<Jobs[JobName]>(
      name,
      { pollingIntervalSeconds: 0.5, includeMetadata: true, batchSize: 1 },
      async (jobs) => {
        for (const job of jobs) await runLocked(locks, name, job as PgBoss.JobWithMetadata<Jobs[JobName]>);
      },
    );
  const timer = setInterval(
    () => void sweep(boss, locks).catch((error: unknown) => logger.warn({ error }, 'sweep failed')),
    SWEEP_EVERY_MS,
  );
  await sweep(boss, locks);
  // What was due while no worker ran is done now, once.
  for (const name of ['clean-up', 'refresh-holidays'] as const)
    await boss.send(name, {}, { singletonKey: name, singletonSeconds: 60 });
  return async () => {
    clearInterval(timer);
    await boss.stop({ graceful: true, timeout: 5000 });
    await locks.end();
  };
}

const LOCK_SQL = 'hashtextextended($1, 7130)';

async function runLocked(locks: pg.Pool, name: JobName, job: PgBoss.JobWithMetadata<Jobs[JobName]>): Promise<void> {
  const client = await locks.connect();
  try {
    const { rows: got } = await client.query<{ free: boolean }>(`SELECT pg_try_advisory_lock(${LOCK_SQL}) AS free`, [
      job.id,
    ]);
    if (!got[0]?.free) return;
    await (WORK[name] as (data: Jobs[JobName]) => Promise<void>)(job.data);
  } catch (error) {
    logger.error({ error, job: name }, 'job failed');
    if (job.retryCount >= job.retryLimit) await giveUp(name, job.data);
    throw error;
  } finally {
    client.release(true);
  }
}

async function giveUp(name: JobName, data: Jobs[JobName]): Promise<void> {
  await (GIVE_UP[name] as ((data: Jobs[JobName]) => Promise<void>) | undefined)?.(data);
}

/** Gives back the jobs whose worker has died: active for a while, and nobody holds their lock. */
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
