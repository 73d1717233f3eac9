import { answerAs } from '@/web/routes';
import { fileResponse } from '@/web/files';
import { libraryFile } from '@/services/library';

export const dynamic = 'force-dynamic';

/** A file of the library, for the interface to show: whole or one range, cached for ever since its name is its hash. */
export async function GET(request: Request, { params }: { params: Promise<{ sha256: string }> }): Promise<Response> {
  return answerAs(request, async (actor) => fileResponse(request, await libraryFile(actor, (await params).sha256)));
}
