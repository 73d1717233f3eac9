import { cancelCommand, commandOf } from '@/services/commands';
import { readInput } from '@/services/people';
import { rowSchema } from '@/web/inputs';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

interface Params {
  readonly params: Promise<{ readonly id: string }>;
}

/** A command, and how it went on each screen by now. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  return answerAs(
    request,
    async (actor) => json(await commandOf(actor, readInput(rowSchema, (await params).id))),
    'commands',
  );
}

/** Cancels it on the screens that have not done it yet. */
export async function DELETE(request: Request, { params }: Params): Promise<Response> {
  return answerAs(
    request,
    async (actor) => json(await cancelCommand(actor, readInput(rowSchema, (await params).id))),
    'commands',
  );
}
