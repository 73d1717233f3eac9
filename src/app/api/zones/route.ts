import { isZone, zoneTable } from '@/core/when';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

const MOST = 50;

/** The changes of clocks in some zones, by the server's zone data. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async () => {
    const names = (new URL(request.url).searchParams.get('names') ?? '').split(',');
    return json(names.filter(isZone).slice(0, MOST).map(zoneTable));
  });
}
