import { parseInstant } from '../instant';
import { readPlan } from '../plan';
import { orThrow } from '../refusal';
import { diffPlans } from '../edition';
import { airTime, forecast, forecastDocument, neverShown, screenProgram, why, type Play } from '.';
import { readRows } from '../tests/rows';
import { smallPlan } from '../tests/small-plan';

interface Case {
  readonly request: { plan: unknown; screen: string; from: string; to: string; plays: boolean };
  readonly answer: unknown;
}

const CASES = readRows<Case>('forecast/playlist-cases.jsonl');
const at = (text: string) => parseInstant(text) as number;

/** Shuffled playlists, clips and weaves: answers by a second implementation of the rules, which shares no code with this one. */
test.each(CASES.map((one, i) => [i + 1, one] as const))('worked forecast %i', (_number, { request, answer }) => {
  const program = screenProgram(orThrow(readPlan(request.plan)), request.screen);
  const result = forecast(program, at(request.from), at(request.to), { plays: request.plays });
  expect(forecastDocument(request.screen, result, request.plays)).toEqual(answer);
});

/** Plays as they are seen from a later instant on. */
const after = (plays: readonly Play[], from: number) =>
  plays.filter((play) => play.to > from).map((play) => ({ ...play, from: Math.max(play.from, from) }));

test.each(CASES.map((one, i) => [i + 1, one] as const))(
  'worked forecast %i is the same from any instant on, though whole passes before it are left out',
  (_number, { request }) => {
    const program = screenProgram(orThrow(readPlan(request.plan)), request.screen);
    const [from, to] = [at(request.from), at(request.to)];
    const whole = forecast(program, from, to, { plays: true }).plays;
    for (const part of [0.13, 0.5, 0.91]) {
      const later = from + Math.floor((to - from) * part);
      expect(forecast(program, later, to, { plays: true }).plays).toEqual(after(whole, later));
    }
  },
);

const FILE = { kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' };
const DAY_OF = [at('2026-12-01T00:00:00Z'), at('2026-12-02T00:00:00Z')] as const;

/** A screen that goes through three stills all day, and what is woven in besides. */
const planWith = (...bookings: object[]) =>
  smallPlan({
    network: { backdrop: { playlist: 'loop' } },
    screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1 }],
    media: ['a', 'b', 'c', 'offer', 'fair'].map((id) => ({ ...FILE, id, name: id })),
    playlists: [
      { id: 'loop', name: 'Loop', items: ['a', 'b', 'c'].map((media) => ({ media, durationMs: 10_000 })) },
      { id: 'offers', name: 'Offers', items: [{ media: 'offer', durationMs: 7_000 }] },
    ],
    bookings: bookings.map((one) => ({
      ...{ id: 'w', name: 'Offers', when: {} },
      ...{ content: { playlist: 'offers' }, ...one },
    })),
  });

test.each([0.001, 0.125, 0.5, 0.9])('a share of %d comes to within one item of it over a day', (share) => {
  const [air] = airTime(planWith({ weave: { share } }), { kind: 'booking', id: 'w' }, ...DAY_OF);
  const promised = share * 86_400_000;
  expect(promised - (air?.ms ?? 0)).toBeGreaterThanOrEqual(0);
  expect(promised - (air?.ms ?? 0)).toBeLessThan(7_000 + 10_000);
});

test('what is woven in counts as its own, and not as that of whom it is woven into', () => {
  const plan = planWith({ weave: { every: 60_000 } });
  const ms = (kind: 'booking' | 'playlist' | 'media', id: string) => airTime(plan, { kind, id }, ...DAY_OF)[0]?.ms ?? 0;
  expect(ms('booking', 'w')).toBe(ms('playlist', 'offers'));
  expect(ms('booking', 'w')).toBe(ms('media', 'offer'));
  expect(ms('playlist', 'loop')).toBe(86_400_000 - ms('booking', 'w'));
  // A turn after six of the loop's own, from the first boundary at which a minute has gone.
  expect(airTime(plan, { kind: 'booking', id: 'w' }, ...DAY_OF)[0]).toMatchObject({
    first: DAY_OF[0] + 60_000,
    ms: 7_000 * 1289,
  });
  expect(neverShown(plan, ...DAY_OF).map(({ subject }) => subject.id)).toEqual(['fair']);
});

test('a takeover is left alone, and what is woven in never wins', () => {
  const plan = planWith(
    { weave: { every: 10_000 }, priority: 5 },
    { id: 't', content: { media: 'fair' }, takeover: true },
  );
  const { segments, plays } = forecast(screenProgram(plan, 'hall'), ...DAY_OF, { plays: true });
  expect(segments.map(({ source }) => source)).toEqual(['takeover']);
  expect(new Set(plays.map(({ media }) => media))).toEqual(new Set(['fair']));
  expect(neverShown(plan, ...DAY_OF).find(({ subject }) => subject.id === 'w')).toMatchObject({ because: 'hidden' });
});

test('why tells whose turn it is', () => {
  const plan = planWith({ weave: { every: 60_000 } });
  const first = DAY_OF[0] + 60_000;
  expect(why(plan, 'hall', first).sentence).toBe(
    'Offers, because it is woven into the loop until 00:01; under it the network’s backdrop waits (another item is playing in its loop).',
  );
  expect(why(plan, 'hall', first - 1).sentence).toBe(
    'The network’s backdrop, because no booking has anything to show; under it Offers, priority 3, waits (it is woven in, and its next turn comes later).',
  );
});

test('from when something is woven in, what shows is another', () => {
  const [group] = diffPlans(
    planWith(),
    planWith({ weave: { share: 0.1 }, when: { windows: [['06:00', '07:00']] } }),
    ...DAY_OF,
  );
  expect(group?.differences).toMatchObject([{ from: at('2026-12-01T06:00:00Z'), to: DAY_OF[1] }]);
  expect(group?.differences[0]?.after?.media).toEqual(['a', 'b', 'c', 'offer']);
});

test('a clip lasts from its in to its out point, and begins there', () => {
  const plan = planWith();
  const film = { ...FILE, id: 'film', name: 'Film', kind: 'video' as const, durationMs: 30_000 };
  const cut = smallPlan({
    network: { backdrop: { playlist: 'cuts' } },
    sites: plan.sites,
    screens: plan.screens,
    media: [film],
    playlists: [{ id: 'cuts', name: 'Cuts', items: [{ media: 'film', clip: [4_000, 10_000] }, { media: 'film' }] }],
  });
  const { plays } = forecast(screenProgram(cut, 'hall'), DAY_OF[0], DAY_OF[0] + 40_000, { plays: true });
  expect(plays.map(({ from, to, fromMs }) => [from - DAY_OF[0], to - DAY_OF[0], fromMs])).toEqual([
    [0, 6_000, 4_000],
    [6_000, 36_000, 0],
    [36_000, 40_000, 4_000],
  ]);
  const wrong = (item: object) =>
    readPlan({
      ...cut,
      format: 'lanternpost/plan',
      version: 1,
      network: { name: 'N' },
      playlists: [{ id: 'p', name: 'P', items: [item] }],
    });
  expect(wrong({ media: 'film', clip: [0, 30_001] })).toMatchObject({
    ok: false,
    problems: [{ path: '/playlists/0/items/0/clip' }],
  });
  expect(wrong({ media: 'film', clip: [5, 5] })).toMatchObject({
    ok: false,
    problems: [{ message: 'A clip must end after it begins.' }],
  });
  expect(wrong({ media: 'film', clip: [0, 5_000], durationMs: 5_000 })).toMatchObject({ ok: false });
  expect(wrong({ collect: 'all', clip: [0, 5_000] })).toMatchObject({ ok: false });
});
