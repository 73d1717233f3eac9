import { json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The server's clock, for pages that set theirs by it. It asks no database, so that the answer is quick, and tells strangers nothing else. */
export function GET(): Response {
  return json({ now: Date.now() });
}
