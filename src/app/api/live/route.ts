import { answerAs } from '@/web/routes';
import { sessionToken } from '@/web/session';
import { followNetwork } from '@/services/feed';
import { watchSession } from '@/services/people';

export const dynamic = 'force-dynamic';

const KEEP_ALIVE_MS = 20_000;

/** The feed of the person's network as server-sent events: what became of the plan, the screens, uploads and editions. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const token = await sessionToken();
    const encoder = new TextEncoder();
    let end = () => {};
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        const write = (text: string) => {
          try {
            controller.enqueue(encoder.encode(text));
          } catch {
            end();
          }
        };
        write('retry: 2000\n\n');
        const stop = followNetwork(actor, (event) => write(`data: ${JSON.stringify(event)}\n\n`));
        const stopWatching = watchSession(actor, token, () => {
          end();
          controller.close();
        });
        const timer = setInterval(() => write(': still here\n\n'), KEEP_ALIVE_MS);
        end = () => {
          stop();
          stopWatching();
          clearInterval(timer);
        };
        request.signal.addEventListener('abort', end);
      },
      cancel: () => end(),
    });
    return new Response(stream, {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
    });
  });
}
