import { Refusal } from '@/core';

/** What a fault of the machinery below means for who asked; null for one that only we can mend. */
export function troubleOf(error: unknown): Refusal | null {
  const code = codeOf(error);
  if (code === null) return null;
  if (BUSY.has(code))
    return new Refusal(503, 'Other work on this network takes long: nothing was changed. Try again in a moment.');
  // What was on its way may have been done.
  if (code === CUT)
    return new Refusal(503, 'The line to the database was cut: look whether it was done, then try again.');
  if (FULL.has(code))
    return new Refusal(
      507,
      "The server's disk is full or can't be written: nothing was kept. Tell who runs the server.",
    );
  if (AWAY.has(code) || code.startsWith('08'))
    return new Refusal(503, 'The database does not answer: nothing was changed. Try again in a moment.');
  // SQLSTATE class 22: values that the database does not take, whoever sends them.
  if (code.startsWith('22')) return new Refusal(422, 'This holds a value that can not be kept: write it again.');
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
