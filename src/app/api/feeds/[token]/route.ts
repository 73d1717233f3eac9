import { createHash } from 'node:crypto';
import { answer } from '@/web/routes';
import { feedCalendar } from '@/services/calendars';

export const dynamic = 'force-dynamic';

/** A feed for calendar programs: whoever has the address may read, until it is closed. */
export async function GET(request: Request, { params }: { params: Promise<{ token: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { token } = await params;
    const body = await feedCalendar(token.replace(/\.ics$/, ''), Date.now());
    const etag = `"${createHash('sha256').update(body).digest('base64url').slice(0, 32)}"`;
    const headers = { etag, 'cache-control': 'private, max-age=300', 'referrer-policy': 'no-referrer' };
    if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
    return new Response(body, { headers: { ...headers, 'content-type': 'text/calendar; charset=utf-8' } });
  });
}
