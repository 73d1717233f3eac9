import * as z from 'zod';
import { mediaFilters } from '@/web/inputs';
import { answerAs, json, readQuery } from '@/web/routes';
import { findInLibrary } from '@/services/library';
import { think } from '@/services/thinking';

export const dynamic = 'force-dynamic';

const querySchema = z.object({
  ...mediaFilters,
  from: z.coerce.number().int().min(0).default(0),
  count: z.coerce.number().int().min(1).max(200, 'Ask for at most 200 files at a time.').default(60),
});

/** A page of the library's files that match. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const { small, ...asked } = readQuery(request, querySchema);
    return json(await findInLibrary(actor, { ...asked, among: small ? await think('smallFiles', actor) : null }));
  });
}
