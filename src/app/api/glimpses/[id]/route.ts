import * as z from 'zod';
import { glimpsePicture } from '@/services/glimpses';
import { readInput } from '@/services/people';
import { rowSchema } from '@/web/inputs';
import { answerAs } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** A picture of a screen as a JPEG: as it was seen, or with `?which=planned` as the forecast says. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const which = readInput(
        z.enum(['seen', 'planned'], 'Write “seen” or “planned”.').default('seen'),
        new URL(request.url).searchParams.get('which') ?? undefined,
      );
      const picture = await glimpsePicture(actor, readInput(rowSchema, (await params).id), which);
      // A screen may be made private: what was seen before must not stay in the browser for long.
      return new Response(picture, {
        headers: {
          'content-type': 'image/jpeg',
          'cache-control': 'private, max-age=300',
          'x-content-type-options': 'nosniff',
        },
      });
    },
    'commands',
  );
}
