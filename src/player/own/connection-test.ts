import type { WayStep } from '@/protocol/bridge';
import { ProtocolError, type ProtocolClient } from '@/protocol/client';

/** One step of the test, in words that can be read out over the telephone. */
export interface TestStep {
  readonly name: string;
  readonly state: 'ok' | 'failed' | 'skipped';
  readonly words: string;
}

/** What the test works with. */
export interface Means {
  readonly server: string;
  /** Whether the device has a network at all, as far as it knows. */
  readonly isOnline: () => boolean;
  readonly fetcher: typeof fetch;
  /** With the player's token; null while it is not paired. */
  readonly client: Pick<ProtocolClient, 'target' | 'events' | 'asset' | 'program' | 'clockOffsetMs'> | null;
  /** The way to the server, step by step, as a bridge to the device tells it; null if it doesn't. A browser can't tell these steps apart. */
  readonly way?: (() => Promise<readonly WayStep[] | null>) | undefined;
  /** How long the way to the server took, if the browser tells: to find the name, to connect, and for TLS. In milliseconds. */
  readonly timings?: (address: string) => { name: number; connect: number; tls: number | null } | null;
}

type Step = (means: Means, signal: AbortSignal) => Promise<string | null>;

/** So long a step may take. */
const PATIENCE_MS = 8000;
const CLOCK_TOLERANCE_MS = 30_000;

/** Tests the connection step by step, and tells each as it is done. After a step that fails the others are skipped: they would fail too. */
export async function* testConnection(means: Means, patienceMs = PATIENCE_MS): AsyncGenerator<TestStep> {
  let failed: string | null = null;
  for await (const [name, step] of stepsOf(means)) {
    if (failed) {
      yield { name, state: 'skipped', words: `Not tried, because “${failed}” failed.` };
      continue;
    }
    const given = new AbortController();
    const timer = setTimeout(() => given.abort(), patienceMs);
    try {
      const words = await Promise.race([step(means, given.signal), silence(given.signal)]);
      if (words === null) yield { name, state: 'skipped', words: 'Not tried: this player isn’t paired yet.' };
      else yield { name, state: 'ok', words };
    } catch (error) {
      failed = name;
      yield { name, state: 'failed', words: error instanceof Error ? error.message : String(error) };
    } finally {
      clearTimeout(timer);
      given.abort();
    }
  }
}

async function* stepsOf(means: Means): AsyncGenerator<readonly [string, Step]> {
  yield ['Network', network];
  const way = await means.way?.();
  for (const { name, isOk, words } of way ?? []) yield [name, async () => (isOk ? words : failing(words))];
  yield [way ? 'Server' : 'Name, address and TLS', server];
  yield ['Time', time];
  yield ['Token', token];
  yield ['Stream', stream];
  yield ['Fetch', fetchSomething];
}

const failing = (words: string): never => {
  throw new Error(words);
};

const silence = (signal: AbortSignal) =>
  new Promise<never>((_, reject) =>
    signal.addEventListener('abort', () =>
      reject(new Error('The server took too long to answer. The line may be slow or full.')),
    ),
  );

async function network({ isOnline }: Means): Promise<string> {
  if (!isOnline()) throw new Error('The device has no network. Check the cable, or the Wi-Fi and its password.');
  return 'The device has a network.';
}

/** A browser doesn't say whether it was the name, the address or the certificate that failed. */
async function server({ server: origin, fetcher, timings }: Means, signal: AbortSignal): Promise<string> {
  const { hostname, port, protocol } = new URL(origin);
  const number = port || (protocol === 'https:' ? '443' : '80');
  const address = `${origin}/api/player/v1/target`;
  let response: Response;
  try {
    response = await fetcher(address, { cache: 'no-store', redirect: 'manual', signal });
  } catch {
    throw new Error(
      `${hostname} can’t be reached. Check that the network knows this name, that nothing blocks port ${number}, and that the device’s clock is right.`,
    );
  }
  const isOurs = response.headers.get('content-type')?.startsWith('application/problem+json') === true;
  if (!isOurs)
    throw new Error(
      `Something else answered in place of ${hostname}. Often it is the login page of a guest network, or a proxy. Ask whoever runs the network to let this device through.`,
    );
  const took = timings?.(address);
  if (!took) return `${hostname} answers on port ${number}.`;
  const tls = took.tls === null ? 'no TLS' : `TLS in ${Math.round(took.tls)} ms`;
  return `${hostname} answers on port ${number}: name found in ${Math.round(took.name)} ms, connected in ${Math.round(took.connect)} ms, ${tls}.`;
}

async function time({ client }: Means): Promise<string | null> {
  if (!client) return null;
  await known(client.target());
  const seconds = Math.round(Math.abs(client.clockOffsetMs) / 1000);
  if (Math.abs(client.clockOffsetMs) <= CLOCK_TOLERANCE_MS) return 'The device’s clock is right.';
  return `The device’s clock is ${seconds} seconds ${client.clockOffsetMs > 0 ? 'slow' : 'fast'}. The player corrects that by itself.`;
}

/** Without what is tested in the step after it. */
async function known<T>(asked: Promise<T>): Promise<T | null> {
  return asked.catch((error: unknown) => {
    if (error instanceof ProtocolError && error.status === 401) return null;
    throw error;
  });
}

async function token({ client }: Means): Promise<string | null> {
  if (!client) return null;
  try {
    const { screen } = await client.target();
    return `The server knows this player as “${screen.name}”.`;
  } catch (error) {
    if (error instanceof ProtocolError && error.status === 401)
      throw new Error('The server no longer knows this player. Pair it again: it shows a code within minutes.');
    throw error;
  }
}

async function stream({ client }: Means, signal: AbortSignal): Promise<string | null> {
  if (!client) return null;
  const own = new AbortController();
  signal.addEventListener('abort', () => own.abort());
  await new Promise<void>((heard, failed) => {
    client
      .events(() => heard(), own.signal)
      .then(
        () => failed(new Error('The stream ended before anything came. A proxy may be in between.')),
        () =>
          failed(
            new Error(
              'The stream of news doesn’t open. A proxy may block it. The player asks once a minute in place of it.',
            ),
          ),
      );
    signal.addEventListener('abort', () =>
      failed(
        new Error(
          'Nothing comes through the stream of news. A proxy may hold it back. The player asks once a minute in place of it.',
        ),
      ),
    );
  }).finally(() => own.abort());
  return 'News comes at once.';
}

async function fetchSomething({ client }: Means): Promise<string | null> {
  if (!client) return null;
  const { program } = await client.target();
  if (program === null) return 'There is nothing to fetch: nothing is published for this screen yet.';
  const begun = performance.now();
  const text = await client.program(program);
  return `A program of ${Math.ceil(text.length / 1000)} kB came in ${Math.round(performance.now() - begun)} ms.`;
}
