import { answerAs, json } from '@/web/routes';
import { sessionToken } from '@/web/session';
import { invitations, keys, othersKeys, people, sessions, trail } from '@/services/people';

export const dynamic = 'force-dynamic';

/** Who belongs to the network, one's own sessions and keys; for owners the links that wait, others' keys, and what was done, too. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const token = await sessionToken();
    const [there, waiting, own, ownKeys, others, done] = await Promise.all([
      people(actor),
      invitations(actor),
      sessions(actor, token),
      keys(actor),
      othersKeys(actor),
      trail(actor),
    ]);
    return json({
      ...{ people: there, invitations: waiting, trail: done },
      ...{ sessions: own, keys: ownKeys, othersKeys: others },
    });
  });
}
