import type { Command } from '@/core/commands';
import { BridgedHardware, bridgeIn } from './bridged-hardware';
import type { PageHardware } from './page-hardware';

const BRIDGE = { url: 'http://127.0.0.1:4190', token: 'a-token-of-more-than-twenty-letters' };
const command = (values: Partial<Command>): Command => ({ id: 'c', kind: 'identify', at: 0, expires: 1, ...values });

/** A page, and a bridge that answers with this state. */
async function hardware(state: unknown, fails?: Response) {
  const [onPage, orders]: [string[], unknown[]] = [[], []];
  const page = {
    abilities: () => ['volume', 'update'],
    state: () => ({ volume: 100, degrees: 0 }),
    carryOut: async ({ kind }: Command) => void onPage.push(kind),
    picture: async () => ({ bytes: new Uint8Array([1]), isCovered: true }),
  };
  const fetcher = async (input: string, init: RequestInit) => {
    expect((init.headers as Record<string, string>).authorization).toBe(`Bearer ${BRIDGE.token}`);
    if (input.endsWith('/state')) return Response.json(state);
    if (input.endsWith('/way')) return Response.json((state as { way?: unknown }).way ?? null);
    if (fails) return fails;
    if (input.endsWith('/picture')) return new Response(new Uint8Array([2, 2]));
    orders.push(JSON.parse(String(init.body)));
    return new Response(null, { status: 204 });
  };
  const made = new BridgedHardware(page as unknown as PageHardware, BRIDGE, fetcher as typeof fetch);
  await made.refresh();
  return { made, onPage, orders };
}

test('the page’s address names the bridge; anything else is none', () => {
  expect(bridgeIn(`#bridge=4190.${BRIDGE.token}`)).toEqual(BRIDGE);
  expect([bridgeIn(''), bridgeIn('#bridge=4190'), bridgeIn('#bridge=x.http://evil')]).toEqual([null, null, null]);
});

test('what the bridge can do goes to it, the rest to the page', async () => {
  const { made, onPage, orders } = await hardware({
    can: ['brightness', 'volume', 'input', 'power', 'picture'],
    measured: { temperature: 40 },
  });
  expect(made.abilities()).toEqual(['volume', 'update', 'brightness', 'input', 'power']);
  expect(made.state()).toEqual({ volume: 100, degrees: 0, temperature: 40 });
  await made.carryOut(command({ kind: 'volume', percent: 30 }));
  await made.carryOut(command({ kind: 'turn', degrees: 90 }));
  await made.carryOut(command({ kind: 'identify' }));
  await made.carryOut(command({ kind: 'input', input: 'hdmi-2' }));
  await made.setPower(false);
  expect(orders).toEqual([
    { kind: 'volume', percent: 30 },
    { kind: 'input', input: 'hdmi-2' },
    { kind: 'power', isOn: false },
  ]);
  expect(onPage).toEqual(['turn', 'identify']);
  // What really is on the glass, and whether something of the player's own lies over it.
  expect(await made.picture()).toEqual({ bytes: new Uint8Array([2, 2]), isCovered: true });
});

test('the way to the server is told as the bridge says, unless that makes no sense', async () => {
  const way = [{ name: 'Name', isOk: true, words: 'It is 192.0.2.7.' }];
  expect(await (await hardware({ can: [], measured: {}, way })).made.way()).toEqual(way);
  for (const nonsense of [null, [null], [{ name: 'Name', isOk: 'yes', words: '' }]])
    expect(await (await hardware({ can: [], measured: {}, way: nonsense })).made.way()).toBeNull();
});

test('a bridge that says what can’t be is believed as far as it makes sense', async () => {
  const { made } = await hardware({
    can: ['power', 7],
    measured: { temperature: 'hot', memory: 40, load: -1, display: 'maybe', serial: 'a\nb', firmware: 4 },
  });
  expect(made.state()).toEqual({ volume: 100, degrees: 0, serial: 'ab' });
});

test('a failure comes with the bridge’s sentence; a bridge that is gone takes its abilities along', async () => {
  const title = 'The display didn’t switch off.';
  const { made } = await hardware({ can: ['power'], measured: {} }, Response.json({ title }, { status: 500 }));
  await expect(made.setPower(false)).rejects.toThrow(title);
  const gone = new BridgedHardware(
    { abilities: () => ['volume'], state: () => ({}) } as unknown as PageHardware,
    BRIDGE,
    (() => Promise.reject(new TypeError('refused'))) as typeof fetch,
  );
  await gone.refresh();
  expect(gone.abilities()).toEqual(['volume']);
  await expect(gone.setPower(true)).rejects.toThrow('The bridge to the device doesn’t answer.');
});
