import { recentCommands, sendCommand } from '@/services/commands';
import { readInput } from '@/services/people';
import { idempotencySchema, screensSchema } from '@/web/inputs';
import { answerAs, isOfProgram, json, readJson } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The last commands, and how they went; `?screen=` once or more: of these screens alone. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const screens = new URL(request.url).searchParams.getAll('screen');
      return json(await recentCommands(actor, screens.length > 0 ? readInput(screensSchema, screens) : null));
    },
    'commands',
  );
}

/** Sends a command to screens. With an `Idempotency-Key` it is sent once, however often the request is. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const idempotencyKey = readInput(idempotencySchema, request.headers.get('idempotency-key') ?? undefined);
      return json(await sendCommand(actor, await readJson(request), { byKey: isOfProgram(request), idempotencyKey }));
    },
    'commands',
  );
}
