import * as z from 'zod';
import { mediaFilters } from '@/web/inputs';
import { answerAs, json, readQuery } from '@/web/routes';
import { libraryFacets } from '@/services/library';
import { think } from '@/services/thinking';

export const dynamic = 'force-dynamic';

const querySchema = z.object(mediaFilters);

/** How the matching library files can be narrowed further, with how many files each choice leaves. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const { small: narrowed, ...asked } = readQuery(request, querySchema);
    const small = await think('smallFiles', actor);
    return json(await libraryFacets(actor, { ...asked, small, among: narrowed ? small : null }));
  });
}
