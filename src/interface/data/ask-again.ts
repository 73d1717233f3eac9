import type { QueryClient } from '@tanstack/react-query';

/**
 * Asks again for what may have changed. An answer that is still on its way may be from before the change: it is not waited for, and
 * not shown.
 */
export async function askAgain(queries: QueryClient, what: string): Promise<void> {
  await queries.cancelQueries({ queryKey: [what] });
  await queries.invalidateQueries({ queryKey: [what] });
}
