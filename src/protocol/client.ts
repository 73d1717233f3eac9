import { createParser } from 'eventsource-parser';
import type { Outcome } from '@/core/commands';
import { ServerClock } from '@/core/server-clock';
import { isTarget, messageOf, type Message } from './messages';
import type { Pairing, Press, Report, Target } from './schemas';

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

/** So long a server may be silent before or within an answer, in milliseconds: a line that is half open never says that it broke. */
export const SILENT_FOR_MS = 30_000;
/** The same of the stream of events, which says every 20 s that it is there. */
const STREAM_SILENT_FOR_MS = 60_000;

/** The next piece of an incoming stream. Throws ProtocolError 0 if nothing comes for so long; the caller then cancels the reader. */
export async function nextOf<T>(
  reader: ReadableStreamDefaultReader<T>,
  ms = SILENT_FOR_MS,
): Promise<ReadableStreamReadResult<T>> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const silence = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new ProtocolError(0, 'The server stopped answering.')), ms);
  });
  try {
    return await Promise.race([reader.read(), silence]);
  } finally {
    clearTimeout(timer);
  }
}

/** What a player sends to wait for a screen, in place of showing a code alone. */
export interface Enrolment {
  readonly key: string;
  /** The same at each start of this device. */
  readonly serial: string;
  readonly software?: string | undefined;
}

/** The typed client of the player protocol: for the browser player and the simulated ones alike. */
export class ProtocolClient {
  private readonly clock = new ServerClock();

  constructor(
    private readonly server: string,
    private token: string | null = null,
    private readonly now: () => number = Date.now,
    private readonly fetcher: typeof fetch = (input, init) => fetch(input, init),
  ) {}

  /** Server time less own clock, in milliseconds, as measured at the exchange that could tell it best. */
  get clockOffsetMs(): number {
    return this.clock.offsetMs;
  }

  set clockOffsetMs(offsetMs: number) {
    this.clock.offsetMs = offsetMs;
  }

  useToken(token: string | null): void {
    this.token = token;
  }

  /** `was` is the token that it had before, if any. */
  startPairing(enrol?: Enrolment, was?: string): Promise<Pairing> {
    return this.exchange<Pairing>('/pairing', enrol || was ? post({ enrol, was }) : { method: 'POST' });
  }

  /** The token, or null until a person has typed the code. Throws ProtocolError 400 when the code has expired. */
  async collectToken(deviceCode: string): Promise<string | null> {
    const response = await this.send('/pairing/token', post({ device_code: deviceCode }));
    const body = (await jsonOf(response)) as {
      access_token?: string;
      error?: string;
      error_description?: string;
      title?: string;
    };
    if (body.access_token) return body.access_token;
    if (body.error === 'authorization_pending') return null;
    throw new ProtocolError(response.status, body.error_description ?? body.title ?? 'The code has expired.');
  }

  target(): Promise<Target> {
    return this.measured('/target', {});
  }

  heartbeat(report: Report): Promise<Target> {
    return this.measured('/heartbeat', post(report));
  }

  /** Reports outcomes of commands. */
  async outcomes(outcomes: readonly Outcome[]): Promise<void> {
    await textOf(await this.checked('/commands', post({ outcomes })));
  }

  /** Tells what was pressed at the screen. */
  async firings(firings: readonly Press[]): Promise<void> {
    await textOf(await this.checked('/firings', post({ firings })));
  }

  /** Sends a picture of what is seen. */
  async glimpse(picture: Uint8Array<ArrayBuffer>, at: number, program: string | null): Promise<void> {
    const query = new URLSearchParams({ at: String(Math.round(at)), ...(program === null ? {} : { program }) });
    const sent = { method: 'POST', headers: { 'content-type': 'image/jpeg' }, body: picture };
    await textOf(await this.checked(`/glimpses?${query.toString()}`, sent));
  }

  async program(hash: string, signal?: AbortSignal): Promise<string> {
    return textOf(await this.checked(`/programs/${hash}`, { signal }), signal);
  }

  /** A file's bytes from `start` on, as a stream. */
  async asset(
    sha256: string,
    start = 0,
    signal?: AbortSignal,
  ): Promise<{ body: ReadableStream<Uint8Array>; resumed: boolean }> {
    const headers: Record<string, string> = start > 0 ? { range: `bytes=${start}-`, 'if-range': `"${sha256}"` } : {};
    const response = await this.checked(`/assets/${sha256}`, { headers, signal });
    if (!response.body) throw new ProtocolError(response.status, 'The file arrived empty.');
    return { body: response.body as ReadableStream<Uint8Array>, resumed: response.status === 206 };
  }

  /** Listens until the line breaks (returns) or `signal` aborts. Unknown events are ignored. */
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
        const { done, value } = await nextOf(reader, STREAM_SILENT_FOR_MS);
        if (done) return;
        parser.feed(decoder.decode(value, { stream: true }));
      }
    } finally {
      signal.removeEventListener('abort', cancel);
      cancel();
    }
  }

  private async measured(path: string, init: RequestInit): Promise<Target> {
    const sent = this.now();
    const target = await this.exchange<unknown>(path, init);
    if (!isTarget(target)) throw new ProtocolError(0, 'The answer didn’t come from the server.');
    this.clock.tell(target.serverTime, sent, this.now());
    return target;
  }

  private async exchange<T>(path: string, init: RequestInit): Promise<T> {
    const response = await this.checked(path, init);
    try {
      return JSON.parse(await textOf(response)) as T;
    } catch {
      throw new ProtocolError(0, 'The answer didn’t come from the server, or the connection broke.');
    }
  }

  private async checked(path: string, init: RequestInit): Promise<Response> {
    const response = await this.send(path, init);
    if (response.ok) return response;
    const ours = response.headers.get('content-type')?.startsWith('application/problem+json') === true;
    const { title } = ours ? ((await jsonOf(response, init.signal ?? undefined)) as { title?: string }) : {};
    throw new ProtocolError(response.status, title ?? `The server answered ${response.status}.`, ours);
  }

  private async send(path: string, init: RequestInit): Promise<Response> {
    const headers = {
      ...(init.headers as Record<string, string>),
      ...(this.token ? { authorization: `Bearer ${this.token}` } : {}),
    };
    const given = new AbortController();
    let giveUp = () => {};
    // Not by the request's word alone: one that is broken off has been seen to wait for ever.
    const ended = new Promise<never>((_, reject) => {
      giveUp = () => {
        given.abort();
        reject(new Error('The server isn’t answering.'));
      };
    });
    const timer = setTimeout(giveUp, SILENT_FOR_MS);
    init.signal?.addEventListener('abort', giveUp);
    const signal = init.signal ? AbortSignal.any([init.signal, given.signal]) : given.signal;
    try {
      if (init.signal?.aborted) giveUp();
      const address = `${this.server}/api/player/v1${path}`;
      return await Promise.race([this.fetcher(address, { ...init, headers, signal, cache: 'no-store' }), ended]);
    } catch (error) {
      throw new ProtocolError(0, error instanceof Error ? error.message : 'The server can’t be reached.');
    } finally {
      clearTimeout(timer);
      init.signal?.removeEventListener('abort', giveUp);
    }
  }
}

function post(body: unknown): RequestInit {
  return { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
}

/** What a refusal says; nothing where it can't be read. */
async function jsonOf(response: Response, signal?: AbortSignal): Promise<unknown> {
  try {
    return JSON.parse(await textOf(response, signal));
  } catch {
    return {};
  }
}

/** Reads an answer's text as long as it keeps coming and isn't cancelled, and returns the result. */
async function textOf(response: Response, signal?: AbortSignal): Promise<string> {
  if (!response.body) return '';
  const reader = (response.body as ReadableStream<Uint8Array>).getReader();
  const cancel = () => void reader.cancel().catch(() => undefined);
  signal?.addEventListener('abort', cancel);
  const decoder = new TextDecoder();
  let text = '';
  try {
    if (signal?.aborted) cancel();
    for (;;) {
      const { done, value } = await nextOf(reader);
      if (done) return text + decoder.decode();
      text += decoder.decode(value, { stream: true });
    }
  } finally {
    signal?.removeEventListener('abort', cancel);
    cancel();
  }
}
