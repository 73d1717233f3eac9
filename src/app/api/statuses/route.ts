import { answerAs } from '@/web/routes';
import { screenStatuses } from '@/services/screens';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) =>
    Response.json(await screenStatuses(actor), { headers: { 'cache-control': 'no-store' } }),
  );
}
