import pg from 'pg';
import { Sequelize, Transaction } from 'sequelize';
import { config } from '@/config';
import { bindModels } from './models';
import { POOL, inShare } from './shares';

/** Next compiles each route on its own: what must be one in a process hangs here. */
const shared = globalThis as typeof globalThis & { lanternpostDatabase?: Sequelize };

/** The connection that this copy of the models is bound to. */
let bound: Sequelize | undefined;

/** In milliseconds: what waits or works longer is given up, with a sentence for who asked (`services/trouble.ts`). */
const LIMITS = { lock_timeout: 20_000, statement_timeout: 60_000, idle_in_transaction_session_timeout: 120_000 };

/** This process's connection pool. Connects when first used. */
export function database(): Sequelize {
  if (!shared.lanternpostDatabase) {
    const sequelize = new Sequelize(config().databaseUrl, {
      dialect: 'postgres',
      dialectModule: pg,
      logging: false,
      pool: { max: POOL.most, min: 0, acquire: 20_000, idle: 10_000 },
      dialectOptions: LIMITS,
      retry: { max: 0 },
    });
    shared.lanternpostDatabase = sequelize;
  }
  if (bound !== shared.lanternpostDatabase) bindModels((bound = shared.lanternpostDatabase));
  return bound;
}

/** Closes the pool: for programs that end, and for tests. */
export async function closeDatabase(): Promise<void> {
  const open = shared.lanternpostDatabase;
  delete shared.lanternpostDatabase;
  await open?.close();
}

/** Runs `work` in a transaction: all of it is written, or none. */
export function transaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
  return inShare(() => database().transaction(work));
}

/** Runs reads that all see the database as it was at the first of them. */
export function snapshot<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
  return inShare(() => database().transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ }, work));
}

/** One raw query's rows, in the transaction where given. */
export async function rows<T extends object>(sql: string, bind: unknown[] = [], within?: Transaction): Promise<T[]> {
  const ask = () => database().query(sql, { bind: bind.map((value) => value ?? null), transaction: within, raw: true });
  const [result] = await (within ? ask() : inShare(ask));
  return result as T[];
}

/** A list of at least so many keys is long. */
const MANY = 500;

/**
 * One raw query that looks up a list of `count` keys, in a transaction. PostgreSQL expects every list to be short. Right after a large
 * import it also thinks that tables are small. Then it compares each key with each row, which takes minutes. For long lists this function
 * forbids that, so PostgreSQL sorts or hashes both sides.
 */
export async function rowsOfMany<T extends object>(
  sql: string,
  bind: unknown[],
  count: number,
  within: Transaction,
): Promise<T[]> {
  if (count < MANY) return rows<T>(sql, bind, within);
  await rows('SET LOCAL enable_nestloop = off', [], within);
  const found = await rows<T>(sql, bind, within);
  await rows('SET LOCAL enable_nestloop = on', [], within);
  return found;
}
