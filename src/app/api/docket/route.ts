import { answerAs, json } from '@/web/routes';
import { docket } from '@/services/editions';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await docket(actor)));
}
