import { createParser } from 'eventsource-parser';
import { isTarget, messageOf, type Message } from './messages';
import type { Pairing, Report, Target } from './schemas';

/** The server refused, or could not be reached (`status` 0). */
export class ProtocolError extends Error {
  constructor(
    readonly status: number,
    message: string,
    /** Whether it was our own server that said so: a portal or a proxy in between says nothing of ours. */
    readonly ours = false,
  ) {
    super(message);
  }
}

/** The typed client of the player protocol: for the browser player and the simulated ones alike. */
export class ProtocolClient {
  /** Server time less own clock, in milliseconds, as measured at the last exchange. */
  clockOffsetMs = 0;

  constructor(
    private readonly server: string,
    private token: string | null = null,
    private readonly now: () => number = Date.now,
    private readonly fetcher: typeof fetch = (input, init) => fetch(input, init),
  ) {}

  useToken(token: string | null): void {
    this.token = token;
  }

  startPairing(): Promise<Pairing> {
    return this.exchange<Pairing>('/pairing', { method: 'POST' });
  }

  /** The token, or null while nobody has typed the code. Throws ProtocolError 400 when the code is over. */
  async collectToken(deviceCode: string): Promise<string | null> {
    const response = await this.send('/pairing/token', post({ device_code: deviceCode }));
    const body = (await response.json().catch(() => ({}))) as {
      access_token?: string;
      error?: string;
      error_description?: string;
      title?: string;
    };
    if (body.access_token) return body.access_token;
    if (body.error === 'authorization_pending') return null;
    throw new ProtocolError(response.status, body.error_description ?? body.title ?? 'The code is over.');
  }

  target(): Promise<Target> {
    return this.measured('/target', {});
  }

  heartbeat(report: Report): Promise<Target> {
    return this.measured('/heartbeat', post(report));
  }

  async program(hash: string, signal?: AbortSignal): Promise<string> {
    return (await this.checked(`/programs/${hash}`, { signal })).text();
  }

  /** A file's bytes from `start` on, as a stream. */
  async asset(
    sha256: string,
    start = 0,
    signal?: AbortSignal,
  ): Promise<{ body: ReadableStream<Uint8Array>; resumed: boolean }> {
    const headers: Record<string, string> = start > 0 ? { range: `bytes=${start}-`, 'if-range': `"${sha256}"` } : {};
    const response = await this.checked(`/assets/${sha256}`, { headers, signal });
    if (!response.body) throw new ProtocolError(response.status, 'The file came without bytes.');
    return { body: response.body as ReadableStream<Uint8Array>, resumed: response.status === 206 };
  }

  /** Listens until the line breaks (returns) or `signal` aborts. What is not known is passed over. */
  async events(handle: (message: Message) => void, signal: AbortSignal): Promise<void> {
    const response = await this.checked('/events', { signal });
    const parser = createParser({
      onEvent: ({ event, data }) => {
        const message = messageOf(event, data);
        if (message) handle(message);
      },
    });
    const reader = (response.body as ReadableStream<Uint8Array>).getReader();
    // A stream that broke already can't be cancelled: there is nothing left to end.
    const cancel = () => void reader.cancel().catch(() => undefined);
    signal.addEventListener('abort', cancel);
    const decoder = new TextDecoder();
    try {
      for (;;) {
        const { done, value } = await reader.read();
        if (done) return;
        parser.feed(decoder.decode(value, { stream: true }));
      }
    } finally {
      signal.removeEventListener('abort', cancel);
    }
  }

  private async measured(path: string, init: RequestInit): Promise<Target> {
    const sent = this.now();
    const target = await this.exchange<unknown>(path, init);
    if (!isTarget(target)) throw new ProtocolError(0, 'Something else than the server answered.');
    this.clockOffsetMs = Math.round(target.serverTime - (sent + this.now()) / 2);
    return target;
  }

  private async exchange<T>(path: string, init: RequestInit): Promise<T> {
    const response = await this.checked(path, init);
    try {
      return JSON.parse(await response.text()) as T;
    } catch {
      throw new ProtocolError(0, 'Something else than the server answered, or the line broke.');
    }
  }

  private async checked(path: string, init: RequestInit): Promise<Response> {
    const response = await this.send(path, init);
    if (response.ok) return response;
    const ours = response.headers.get('content-type')?.startsWith('application/problem+json') === true;
    const { title } = ours ? ((await response.json().catch(() => ({}))) as { title?: string }) : {};
    throw new ProtocolError(response.status, title ?? `The server answered ${response.status}.`, ours);
  }

  private async send(path: string, init: RequestInit): Promise<Response> {
    const headers = {
      ...(init.headers as Record<string, string>),
      ...(this.token ? { authorization: `Bearer ${this.token}` } : {}),
    };
    try {
      return await this.fetcher(`${this.server}/api/player/v1${path}`, { ...init, headers, cache: 'no-store' });
    } catch (error) {
      throw new ProtocolError(0, error instanceof Error ? error.message : 'The server can not be reached.');
    }
  }
}

function post(body: unknown): RequestInit {
  return { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
}
