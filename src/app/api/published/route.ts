import * as z from 'zod';
import { answerAs, json, readQuery } from '@/web/routes';
import { editionFor } from '@/services/editions';

export const dynamic = 'force-dynamic';

const querySchema = z.object({ change: z.coerce.number().int().min(0) });

/** The newest edition: its plan, or null where it is the draft as it was at the page's change. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await editionFor(actor, readQuery(request, querySchema).change)));
}
