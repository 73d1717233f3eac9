import * as z from 'zod';
import { answerAs, json, readQuery } from '@/web/routes';
import { missedSince } from '@/services/feed';

export const dynamic = 'force-dynamic';

const querySchema = z.object({ change: z.coerce.number().int().min(0), at: z.coerce.number().min(0) });

/** What a page has missed that knows a change, and the screens as of an instant of the server's clock. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const at = Date.now();
    return json({ ...(await missedSince(actor, readQuery(request, querySchema))), at });
  });
}
