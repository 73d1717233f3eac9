import { Refusal } from '@/core/refusal';

/** What a fault of the disk or database means for the person who asked; null if only the people who run the server can fix it. */
export function troubleOf(error: unknown): Refusal | null {
  const code = codeOf(error);
  if (code === null) return null;
  if (BUSY.has(code))
    return new Refusal(503, 'Other work on this network is taking long. Nothing was changed. Try again in a moment.');
  // What was on its way may have been done.
  if (code === CUT)
    return new Refusal(503, 'The connection to the database was cut. See whether it was done, then try again.');
  if (FULL.has(code))
    return new Refusal(
      507,
      'The server’s disk is full or can’t be written, so this wasn’t saved. Ask the people who run the server to look at it.',
    );
  if (AWAY.has(code) || code.startsWith('08'))
    return new Refusal(503, 'The database isn’t answering. Nothing was changed. Try again in a moment.');
  // SQLSTATE class 22: values that the database does not take, whoever sends them.
  if (code.startsWith('22')) return new Refusal(422, 'This contains a value that can’t be stored. Please change it.');
  return null;
}

/** Lock and statement time limits, too many connections. */
const BUSY = new Set(['55P03', '57014', '53300', 'ACQUIRE']);
const FULL = new Set(['53100', 'ENOSPC', 'EROFS', 'EDQUOT', 'EACCES']);
const AWAY = new Set(['57P01', '57P02', '57P03', 'ECONNREFUSED']);
const CUT = 'CUT';
/** Words of node-postgres, which gives these no code. */
const CUT_WORDS = /Connection terminated|connection error and is not queryable/;

/** Whether the connection to the database was lost in the middle of some work. */
export function isCut(error: unknown): boolean {
  const code = codeOf(error);
  return code === CUT || code === '57P01';
}

/** The code of PostgreSQL or the system that is at the bottom of an error. */
function codeOf(error: unknown): string | null {
  const { name, original, code, message } = (error ?? {}) as Readonly<Record<string, unknown>>;
  if (name === 'SequelizeConnectionAcquireTimeoutError') return 'ACQUIRE';
  if (original !== undefined) return codeOf(original);
  if (code === 'ECONNRESET' || code === 'EPIPE' || CUT_WORDS.test(String(message))) return CUT;
  return typeof code === 'string' ? code : null;
}
