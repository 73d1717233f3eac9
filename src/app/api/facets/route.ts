import { z } from 'zod';
import { mediaFilters } from '@/web/inputs';
import { answerAs, json, readQuery } from '@/web/routes';
import { libraryFacets } from '@/services/library';

export const dynamic = 'force-dynamic';

const querySchema = z.object(mediaFilters);

/** What the library's files that are meant may be narrowed to, with how many each would be. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await libraryFacets(actor, readQuery(request, querySchema))));
}
