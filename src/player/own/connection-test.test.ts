import { ProtocolError } from '@/protocol/client';
import { testConnection, type Means, type TestStep } from './connection-test';

const target = {
  screen: { id: 'hall', name: 'Hall', width: 1, height: 1 },
  edition: 1,
  program: 'f'.repeat(64),
  serverTime: 0,
};
const ours = () => new Response('{}', { status: 401, headers: { 'content-type': 'application/problem+json' } });

function means(more: Partial<NonNullable<Means['client']>> = {}, others: Partial<Means> = {}): Means {
  return {
    server: 'https://signs.example.org',
    isOnline: () => true,
    fetcher: () => Promise.resolve(ours()),
    client: {
      clockOffsetMs: 0,
      target: () => Promise.resolve(target),
      program: () => Promise.resolve('{"loops":{}}'),
      asset: () => Promise.reject(new Error('not asked for')),
      events: (handle) => {
        handle({ kind: 'hurry', data: {} });
        return new Promise(() => undefined);
      },
      ...more,
    },
    ...others,
  };
}

async function told(given: Means, patienceMs?: number): Promise<TestStep[]> {
  const steps: TestStep[] = [];
  for await (const step of testConnection(given, patienceMs)) steps.push(step);
  return steps;
}
/** The step that fails, and its words; all after it are skipped. */
async function failure(given: Means, patienceMs?: number): Promise<string> {
  const steps = await told(given, patienceMs);
  const at = steps.findIndex(({ state }) => state === 'failed');
  expect(steps.slice(at + 1).every(({ state }) => state === 'skipped')).toBe(true);
  return `${steps[at]?.name}: ${steps[at]?.words}`;
}

test('where all is well each step says so', async () => {
  const steps = await told(means({}, { timings: () => ({ name: 3, connect: 12.4, tls: 20 }) }));
  expect(steps.map(({ state }) => state)).toEqual(['ok', 'ok', 'ok', 'ok', 'ok', 'ok']);
  expect(steps[1]?.words).toBe(
    'signs.example.org answers on port 443: name found in 3 ms, connected in 12 ms, TLS in 20 ms.',
  );
  expect(steps[3]?.words).toBe('The server knows this player as “Hall”.');
});

test('with a bridge to the device, name, address and TLS are steps of their own', async () => {
  const way = (isOk: boolean) => async () =>
    [
      { name: 'Name', isOk: true, words: 'signs.example.org is 192.0.2.7.' },
      { name: 'Address', isOk, words: '192.0.2.7 doesn’t answer on port 443.' },
    ] as const;
  const steps = await told(means({}, { way: way(true) }));
  expect(steps.map(({ name, state }) => `${name} ${state}`)).toEqual([
    ...['Network ok', 'Name ok', 'Address ok', 'Server ok', 'Time ok', 'Token ok', 'Stream ok', 'Fetch ok'],
  ]);
  expect(await failure(means({}, { way: way(false) }))).toBe('Address: 192.0.2.7 doesn’t answer on port 443.');
  // A bridge that doesn't know leaves it to the browser.
  expect((await told(means({}, { way: async () => null }))).map(({ name }) => name)).toContain('Name, address and TLS');
});

test.each<[string, Means, RegExp]>([
  ['no cable', means({}, { isOnline: () => false }), /^Network: The device has no network\. Check the cable/],
  [
    'a name that is not known, a closed port or a bad certificate',
    means({}, { fetcher: () => Promise.reject(new TypeError('Failed to fetch')) }),
    /^Name, address and TLS: signs\.example\.org can’t be reached\..*port 443/,
  ],
  [
    'a portal',
    means({}, { fetcher: () => Promise.resolve(new Response('<html>', { headers: { 'content-type': 'text/html' } })) }),
    /^Name, address and TLS: Something else answered in place of signs\.example\.org\. Often it is the login page/,
  ],
  [
    'a token that was revoked',
    means({ target: () => Promise.reject(new ProtocolError(401, 'unknown', true)) }),
    /^Token: The server no longer knows this player\. Pair it again/,
  ],
  [
    'a proxy that ends streams',
    means({ events: () => Promise.resolve() }),
    /^Stream: The stream ended before anything came\./,
  ],
  [
    'a program that can’t be had',
    means({ program: () => Promise.reject(new ProtocolError(502, 'The server answered 502.')) }),
    /^Fetch: The server answered 502\./,
  ],
])('%s is named at its step, and the others are not tried', async (_what, given, words) => {
  expect(await failure(given)).toMatch(words);
});

test('a proxy that holds the stream back is told after a while', async () => {
  const held = means({ events: () => new Promise(() => undefined) });
  expect(await failure(held, 20)).toMatch(/^Stream: /);
});

test('a clock that is off is told, and is no failure', async () => {
  const steps = await told(means({ clockOffsetMs: 240_000 }));
  expect(steps[2]).toEqual({
    name: 'Time',
    state: 'ok',
    words: 'The device’s clock is 240 seconds slow. The player corrects that by itself.',
  });
});

test('a player that isn’t paired yet tests the way to the server', async () => {
  const steps = await told(means({}, { client: null }));
  expect(steps.map(({ state }) => state)).toEqual(['ok', 'ok', 'skipped', 'skipped', 'skipped', 'skipped']);
});
