import PgBoss from 'pg-boss';
import type { Transaction } from 'sequelize';
import { config } from '@/config';
import { logger } from '@/log';
import { rows } from './connection';

/** The work that waits in the background, by queue. */
export interface Jobs {
  /** Measure a received film, make its renditions, and put it into the library. */
  'process-upload': { upload: string };
  /** The same for a picture: these never wait behind films. */
  'process-picture': { upload: string };
  /** Make a rendition of a picture for screens of a size. */
  'fit-picture': { asset: string; width: number; height: number };
  /** The same of a film: it takes long, and nothing waits for it. */
  'fit-film': { asset: string; width: number; height: number };
  /** Compare a picture of a screen with what the forecast says. */
  'compare-glimpse': { glimpse: string };
  /** Give players the renditions that were made since the newest edition. */
  deliver: { network: string };
  /** Remove files that nothing refers to, and uploads that were broken off. */
  'clean-up': Record<string, never>;
  /** Compare some stored files with their hashes. */
  'check-files': Record<string, never>;
  /** Bring the calendars that follow public holidays up to date. */
  'refresh-holidays': Record<string, never>;
}

export type JobName = keyof Jobs;

export const QUEUES: readonly JobName[] = [
  ...(['process-upload', 'process-picture', 'fit-picture', 'fit-film', 'deliver', 'compare-glimpse'] as const),
  ...(['clean-up', 'check-files', 'refresh-holidays'] as const),
];

/** What is done by the clock: the database holds when, so that it is done once, however many workers there are. */
const SCHEDULED = {
  'clean-up': '*/10 * * * *',
  'check-files': '43 * * * *',
  'refresh-holidays': '17 */12 * * *',
} as const satisfies Partial<Record<JobName, string>>;

const shared = globalThis as typeof globalThis & { lanternpostQueue?: Promise<PgBoss> };

/** The queue as a worker needs it: keeps its own tables, and supervises. Call once a worker, and stop it at the end. */
export async function openQueue(): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: config().databaseUrl, max: 4 });
  boss.on('error', (error) => logger.warn({ error }, 'the queue: it goes on by itself when the database is back'));
  await boss.start();
  for (const name of QUEUES)
    await boss.createQueue(name, {
      ...{ name, retryLimit: 3, retryDelay: 1, expireInHours: 4 },
      // At most one waits for each network: what comes until it begins is done with it.
      ...(name === 'deliver' ? { policy: 'short' } : {}),
    });
  for (const [name, cron] of Object.entries(SCHEDULED))
    await boss.schedule(name, cron, {}, { singletonKey: name, retryLimit: 3 });
  return boss;
}

/** The queue as a sender needs it: through this process's own connections. */
function sender(): Promise<PgBoss> {
  shared.lanternpostQueue ??= new PgBoss({
    db: { executeSql: async (sql, values) => ({ rows: await rows(sql, values) }) },
    migrate: false,
    supervise: false,
    schedule: false,
  }).start();
  return shared.lanternpostQueue;
}

/** What is done once for all that comes in so many seconds. */
const GATHERED_FOR_SECONDS = 2;

/**
 * Puts a job into its queue; inside a transaction, it is there exactly when the transaction's other work is. Jobs of a higher
 * priority goes first.
 */
export async function enqueue<N extends JobName>(
  name: N,
  data: Jobs[N],
  within?: Transaction,
  priority = 0,
): Promise<void> {
  const boss = await sender();
  const executeSql = async (sql: string, values: unknown[]) => ({ rows: await rows<object>(sql, values, within) });
  const together = 'network' in data ? { singletonKey: data.network, startAfter: GATHERED_FOR_SECONDS } : {};
  await boss.send(name, data, { db: { executeSql }, priority, ...together });
}

/** Puts many jobs into their queues in one statement; as `enqueue` otherwise. */
export async function enqueueAll<N extends 'fit-picture' | 'fit-film'>(
  jobs: readonly { readonly name: N; readonly data: Jobs[N] }[],
  within: Transaction,
  priority = 0,
): Promise<void> {
  if (jobs.length === 0) return;
  const boss = await sender();
  const executeSql = async (sql: string, values: unknown[]) => ({ rows: await rows<object>(sql, values, within) });
  await boss.insert(
    jobs.map((job) => ({ ...job, priority })),
    { db: { executeSql } },
  );
}

export async function closeQueue(): Promise<void> {
  const open = shared.lanternpostQueue;
  delete shared.lanternpostQueue;
  await (await open)?.stop({ graceful: false, wait: false });
}
