import { answerAs, json } from '@/web/routes';
import { sessionToken } from '@/web/session';
import { invitations, keys, people, sessions, trail } from '@/services/people';

export const dynamic = 'force-dynamic';

/** Who belongs to the network, the links that wait, one's own sessions, and what was done with them. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const token = await sessionToken();
    const [there, waiting, own, ownKeys, done] = await Promise.all([
      people(actor),
      invitations(actor),
      sessions(actor, token),
      keys(actor),
      trail(actor),
    ]);
    return json({ people: there, invitations: waiting, sessions: own, keys: ownKeys, trail: done });
  });
}
