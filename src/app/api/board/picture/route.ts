import { idSchema } from '@/core/plan';
import { boardPicture } from '@/services/cues';
import { readInput } from '@/services/people';
import { fileResponse } from '@/web/files';
import { answer } from '@/web/routes';
import { linkSecret, requestAddress } from '@/web/session';

export const dynamic = 'force-dynamic';

/** The small picture of a file that is on a button of the link's board; `?media=` names it. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async () => {
    const media = readInput(idSchema, new URL(request.url).searchParams.get('media'));
    return fileResponse(request, await boardPicture(linkSecret(request), await requestAddress(), media));
  });
}
