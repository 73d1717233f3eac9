import { ProtocolClient, ProtocolError, SILENT_FOR_MS } from './client';

const TARGET = { screen: { id: 'hall', name: 'Hall', width: 1, height: 1 }, edition: null, program: null };

/** A client whose clock, and the server’s, are the test's; an answer takes so long there and back. */
function measured() {
  const clock = { true: 1_000_000, skew: -5000 };
  const way = { there: 0, back: 0 };
  const client = new ProtocolClient('http://server.test', 't'.repeat(43), () => clock.true + clock.skew, (async () => {
    clock.true += way.there;
    const serverTime = clock.true;
    clock.true += way.back;
    return Response.json({ ...TARGET, serverTime });
  }) as unknown as typeof fetch);
  const ask = async (there: number, back: number) => {
    Object.assign(way, { there, back });
    await client.target();
    return client.clockOffsetMs;
  };
  return { clock, ask };
}

test('the first answer tells the clock, half of its way taken off', async () => {
  expect(await measured().ask(40, 40)).toBe(5000);
  expect(await measured().ask(100, 0)).toBe(5050);
});

test('a slow answer does not spoil what a quick one told; a quicker one makes it better', async () => {
  const { clock, ask } = measured();
  expect(await ask(100, 0)).toBe(5050);
  expect(await ask(4, 2)).toBe(5001);
  clock.true += 15_000;
  expect(await ask(0, 900)).toBe(5001);
  clock.true += 15_000;
  expect(await ask(2, 2)).toBe(5000);
});

test('what was told long ago gives way, since clocks drift', async () => {
  const { clock, ask } = measured();
  expect(await ask(1, 1)).toBe(5000);
  clock.true += 3_600_000;
  clock.skew -= 90;
  expect(await ask(50, 50)).toBe(5090);
});

test.each([-7 * 60_000, 7 * 60_000, 3000])(
  'a clock that jumps by %i ms is told by the next answer, however slow',
  async (by) => {
    const { clock, ask } = measured();
    expect(await ask(1, 1)).toBe(5000);
    clock.skew += by;
    expect(await ask(200, 200)).toBe(5000 - by);
  },
);

describe('a line that is half open', () => {
  beforeEach(() => void jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'setImmediate'] }));
  afterEach(() => void jest.useRealTimers());

  /** A client of a server that answers so, and then not at all. */
  const clientOf = (answer: (init: RequestInit) => Promise<Response>) =>
    new ProtocolClient('http://server.test', 't'.repeat(43), Date.now, ((_: unknown, init: RequestInit) =>
      answer(init)) as typeof fetch);
  /** Never answers; the request can be broken off. */
  const never = ({ signal }: RequestInit) =>
    new Promise<Response>((_, reject) => signal?.addEventListener('abort', () => reject(new Error('broken off'))));
  /** Says how it begins, and no more. */
  const half = () =>
    Promise.resolve(
      new Response(new ReadableStream({ start: (body) => body.enqueue(new TextEncoder().encode('{"screen"')) })),
    );
  const failed = (work: Promise<unknown>) =>
    work.then(
      () => 'done',
      (error: unknown) => (error instanceof ProtocolError ? error.status : error),
    );

  /** Refuses, and does not say why. */
  const refusal = () =>
    Promise.resolve(
      new Response(new ReadableStream(), { status: 404, headers: { 'content-type': 'application/problem+json' } }),
    );
  /** Does not heed that it is broken off. */
  const deaf = () => new Promise<Response>(() => undefined);
  const program = (client: ProtocolClient, signal?: AbortSignal) => client.program('a'.repeat(64), signal);

  test.each([
    ['no answer', deaf, 0],
    ['a refusal without its reason', refusal, 404],
    ['half a program', half, 'done'],
  ] as const)('%s is broken off at once by who does not want it any more', async (_, answer, status) => {
    const wanted = new AbortController();
    const said = failed(program(clientOf(answer), wanted.signal));
    await jest.advanceTimersByTimeAsync(10);
    wanted.abort();
    await jest.advanceTimersByTimeAsync(10);
    expect(await said).toBe(status);
  });

  test.each([
    ['no answer to a heartbeat', never, (client: ProtocolClient) => client.target()],
    ['half an answer', half, (client: ProtocolClient) => client.target()],
    ['no answer to a program', deaf, program],
    ['half a program', half, program],
    ['no answer to a file', never, (client: ProtocolClient) => client.asset('a'.repeat(64))],
  ] as const)('%s is given up, as a line that broke', async (_, answer, ask) => {
    const said = failed(ask(clientOf(answer)));
    await jest.advanceTimersByTimeAsync(SILENT_FOR_MS - 1);
    await expect(Promise.race([said, Promise.resolve('waits')])).resolves.toBe('waits');
    await jest.advanceTimersByTimeAsync(1);
    expect(await said).toBe(0);
  });

  test('a stream of events that says nothing any more ends, one that says that it is there does not', async () => {
    let say = () => {};
    const client = clientOf(() =>
      Promise.resolve(
        new Response(
          new ReadableStream({
            start: (body) => (say = () => body.enqueue(new TextEncoder().encode(': still here\n\n'))) as never,
          }),
        ),
      ),
    );
    const said = failed(client.events(() => undefined, new AbortController().signal));
    for (let i = 0; i < 6; i++) {
      say();
      await jest.advanceTimersByTimeAsync(20_000);
    }
    await expect(Promise.race([said, Promise.resolve('listens')])).resolves.toBe('listens');
    await jest.advanceTimersByTimeAsync(60_000);
    expect(await said).toBe(0);
  });
});
