import { answerAs } from '@/interface/data/routes';
import { watchNetwork } from '@/services/live';

export const dynamic = 'force-dynamic';

const KEEP_ALIVE_MS = 20_000;

/** What happens in the person's network, as server-sent events without content: hints to look again. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
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
        const stop = watchNetwork(actor, (what) => write(`event: ${what}\ndata: {}\n\n`));
        const timer = setInterval(() => write(': still here\n\n'), KEEP_ALIVE_MS);
        end = () => {
          stop();
          clearInterval(timer);
        };
        write('retry: 2000\n\n');
        request.signal.addEventListener('abort', end);
      },
      cancel: () => end(),
    });
    return new Response(stream, {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
    });
  });
}
