import { answerAs } from '@/web/routes';
import { fileResponse } from '@/web/files';
import { thumbnailOf } from '@/services/library';

export const dynamic = 'force-dynamic';

/** The small picture of a media file, named by the file's own hash: cached for ever. */
export async function GET(request: Request, { params }: { params: Promise<{ sha256: string }> }): Promise<Response> {
  return answerAs(request, async (actor) => fileResponse(request, await thumbnailOf(actor, (await params).sha256)));
}
