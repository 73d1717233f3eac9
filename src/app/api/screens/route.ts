import * as z from 'zod';
import { idSchema, screenSchema } from '@/core/plan';
import { answerAs, readJson } from '@/web/routes';
import { readInput } from '@/services/people';
import { edit } from '@/services/plan';

export const dynamic = 'force-dynamic';

const { name, width, height, tags } = screenSchema.shape;
const requestSchema = z.object({
  site: idSchema,
  screens: z.array(z.object({ name, width, height, tags })).min(1).max(5000),
});

/** Adds many screens to a site at once: all, or none. Answers with their ids. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const { site, screens } = readInput(requestSchema, await readJson(request));
    const { ids } = await edit(
      actor,
      screens.map((screen) => ({ kind: 'screen' as const, add: { ...screen, site } })),
    );
    return Response.json({ ids }, { status: 201 });
  });
}
