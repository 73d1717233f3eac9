import * as z from 'zod';
import { addPlaylistFile } from '@/services/plan';
import { answerAs, json, readBody, readQuery } from '@/web/routes';

export const dynamic = 'force-dynamic';

const querySchema = z.object({
  name: z.string('A playlist file has a name.').max(500, 'A name has at most 500 characters.'),
});

const MOST_BYTES = 8 * 2 ** 20;

/** Makes a playlist of an M3U or XSPF file, which is the body. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const { name } = readQuery(request, querySchema);
    return json(await addPlaylistFile(actor, name, (await readBody(request, MOST_BYTES)).toString('utf8')));
  });
}
