import { answer, readJson } from '@/web/routes';
import { keepSession, requestOrigin } from '@/web/session';
import { SESSION_COOKIE } from '@/services/people/session-cookie';
import { signIn } from '@/services/people';

export const dynamic = 'force-dynamic';

/** Signs a program in, as the page for people does; the session comes as a cookie. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async () => {
    const session = await signIn(await readJson(request), await requestOrigin());
    await keepSession(session);
    return Response.json({ cookie: SESSION_COOKIE, expires: session.expires.toISOString() });
  });
}
