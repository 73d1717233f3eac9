import { Refusal } from '@/core/refusal';
import { cannot } from './plan-file';

/** Options of every command that works for a person on a server, by a personal key. */
export const SERVER_OPTIONS = { server: { type: 'string' }, key: { type: 'string' } } as const;

/** The address and the key that options give. Throws Refusal if either is missing. */
export function serverOf(given: { readonly server?: string; readonly key?: string }): readonly [string, string] {
  const key = given.key ?? process.env.LANTERNPOST_KEY;
  if (!given.server || !URL.canParse(given.server))
    throw cannot('/server', 'Name the server by its address, e.g. --server https://lamps.example.');
  if (!key) throw cannot('/key', 'This needs a personal key. Create one under People, and set it as LANTERNPOST_KEY.');
  return [given.server, key];
}

/** A server, asked in a person's name by a personal key. */
export class ServerClient {
  constructor(
    protected readonly server: string,
    private readonly key: string,
  ) {}

  protected get headers() {
    return { authorization: `Bearer ${this.key}` };
  }

  /** What the server answers, as JSON. Throws a Refusal with its sentence and what is wrong with what was sent. */
  async ask(path: string, init: RequestInit = {}): Promise<unknown> {
    const response = await fetch(new URL(path, this.server), {
      ...init,
      headers: { ...this.headers, ...init.headers },
    }).catch(() => {
      throw new Refusal(503, `${this.server} isn’t answering. Check that it is running and that the address is right.`);
    });
    const body = (await response.json().catch(() => null)) as { title?: unknown; errors?: unknown } | null;
    if (response.ok && body !== null) return body;
    throw new Refusal(
      response.status,
      typeof body?.title === 'string'
        ? body.title
        : `${this.server} answers, but it isn’t Lanternpost. Check the address.`,
      problemsIn(body?.errors),
    );
  }

  /** The same with a body in JSON. */
  send(method: 'POST' | 'PUT', path: string, body: unknown): Promise<unknown> {
    return this.ask(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
  }
}

const problemsIn = (found: unknown) =>
  (Array.isArray(found) ? (found as unknown[]) : []).flatMap((one) => {
    const { path, message } = (one ?? {}) as { path?: unknown; message?: unknown };
    return typeof path === 'string' && typeof message === 'string' ? [{ path, message }] : [];
  });
