import * as z from 'zod';
import { playlistFile } from '@/services/plan';
import { answerAs, readQuery, textFile } from '@/web/routes';

export const dynamic = 'force-dynamic';

const querySchema = z.object({ as: z.enum(['m3u8', 'xspf'], 'A playlist is written as m3u8 or xspf.') });

/** A playlist as a file for other programs. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(request, async (actor) =>
    textFile(await playlistFile(actor, (await params).id, readQuery(request, querySchema).as)),
  );
}
