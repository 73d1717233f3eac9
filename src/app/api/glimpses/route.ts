import { idSchema } from '@/core/plan';
import { glimpsesOfScreen, newestGlimpses } from '@/services/glimpses';
import { readInput } from '@/services/people';
import { screensSchema } from '@/web/inputs';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** Pictures of screens: `?of=` all that are kept of one, `?screen=` once or more: the newest of each. The pictures themselves have ids. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const { searchParams } = new URL(request.url);
      const of = searchParams.get('of');
      if (of !== null) return json(await glimpsesOfScreen(actor, readInput(idSchema, of)));
      const screens = readInput(screensSchema, searchParams.getAll('screen'));
      return json(await newestGlimpses(actor, screens));
    },
    'commands',
  );
}
