import { answerAs, json } from '@/web/routes';
import { think } from '@/services/thinking';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await think('docket', actor)), 'publish');
}
