import pino from 'pino';

/** What the log has of an error: never the request or its body, which may be a whole plan, or a secret. */
function errorOf(error: unknown): object {
  if (!(error instanceof Error)) return { message: String(error) };
  const { code } = error as { code?: unknown };
  const { original } = error as { original?: unknown };
  return {
    type: error.name,
    message: error.message,
    ...(typeof code === 'string' ? { code } : {}),
    stack: error.stack,
    ...(original instanceof Error ? { original: errorOf(original) } : {}),
  };
}

/** Structured lines on standard error: one an event, with what is needed to find its cause. */
export const logger = pino(
  { level: process.env.LANTERNPOST_LOG ?? 'info', base: null, serializers: { error: errorOf } },
  pino.destination(2),
);

const TOLD_AGAIN_MS = 60_000;
const told = new Map<string, { readonly at: number; count: number }>();

/**
 * Logs an error that may come with every request, as while the database is away: the first of its kind whole, then once a minute
 * how many came since.
 */
export function logOnce(error: unknown, message: string, now = Date.now()): void {
  const key = `${message} ${error instanceof Error ? `${error.name} ${error.message}` : String(error)}`;
  const before = told.get(key);
  if (before && now >= before.at && now - before.at < TOLD_AGAIN_MS) {
    before.count++;
    return;
  }
  if (before && before.count > 0) logger.error({ since: before.count }, `${message}, again`);
  else logger.error({ error }, message);
  if (told.size > 1000) told.clear();
  told.set(key, { at: now, count: 0 });
}
