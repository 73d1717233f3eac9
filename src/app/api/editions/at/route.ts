import * as z from 'zod';
import { instantSchema } from '@/core/plan';
import { answerAs, json, readQuery } from '@/web/routes';
import { editionAt } from '@/services/editions';

export const dynamic = 'force-dynamic';

const querySchema = z.object({ instant: instantSchema });

/** The edition that was out at an instant (RFC 3339), as it was published. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) =>
    json(await editionAt(actor, new Date(readQuery(request, querySchema).instant))),
  );
}
