import fc from 'fast-check';
import { compileEdition, type ProgramDocument } from '../edition';
import { HOUR, parseInstant } from '../instant';
import { readPlan, type Plan } from '../plan';
import { orThrow } from '../refusal';
import { changes, forecast, forecastAt, forecastDocument, glances, screenProgram, why, type Segment } from '.';
import { runs } from '../tests/runs';
import { readRows } from '../tests/rows';

interface Case {
  readonly request: { plan: unknown; screen: string; from: string; to: string; plays: boolean };
  readonly answer: unknown;
}

const CASES = readRows<Case>('forecast/cases.jsonl');

function planOf(document: unknown): Plan {
  const read = readPlan(document);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

const at = (text: string) => parseInstant(text) as number;
const range = ({ request }: Case) => [at(request.from), at(request.to)] as const;

/** Answers by a second implementation of the rules, which shares no code with this one: to the millisecond. */
test.each(CASES.map((one, i) => [i + 1, one] as const))('worked forecast %i', (_number, { request, answer }) => {
  const program = screenProgram(planOf(request.plan), request.screen);
  const result = forecast(program, at(request.from), at(request.to), { plays: request.plays });
  expect(forecastDocument(request.screen, result, request.plays)).toEqual(answer);
});

/** Joins what a cut at the border of two ranges parts. */
function joined(segments: readonly Segment[]): Segment[] {
  const result: Segment[] = [];
  for (const segment of segments) {
    const last = result.at(-1);
    if (
      last &&
      last.to === segment.from &&
      last.source === segment.source &&
      last.id === segment.id &&
      last.since === segment.since
    )
      result[result.length - 1] = { ...last, to: segment.to };
    else result.push(segment);
  }
  return result;
}

const anyCase = fc.constantFrom(...CASES);

test('segments tile the range exactly', () => {
  for (const one of CASES) {
    const [from, to] = range(one);
    const { segments } = forecast(screenProgram(planOf(one.request.plan), one.request.screen), from, to);
    expect(segments[0]?.from).toBe(from);
    expect(segments.at(-1)?.to).toBe(to);
    segments.forEach((segment, i) => expect(segments[i + 1]?.from ?? to).toBe(segment.to));
  }
});

test('the forecast of a range equals the join of the forecasts of its parts', () => {
  fc.assert(
    fc.property(anyCase, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (one, share) => {
      const [from, to] = range(one);
      const middle = Math.round(from + (to - from) * share);
      const program = screenProgram(planOf(one.request.plan), one.request.screen);
      const [whole, first, second] = [
        forecast(program, from, to),
        forecast(program, from, middle),
        forecast(program, middle, to),
      ];
      expect(joined([...first.segments, ...second.segments])).toEqual(joined(whole.segments));
    }),
    runs(60),
  );
});

test("the player's answer, from its program alone, equals the server’s at every instant", () => {
  fc.assert(
    fc.property(anyCase, fc.double({ min: 0, max: 1, noNaN: true }), (one, share) => {
      const { plan, screen } = { plan: planOf(one.request.plan), screen: one.request.screen };
      const [from, to] = range(one);
      const instant = Math.round(from + (to - from - 1) * share);
      const withFiles = {
        ...plan,
        media: plan.media.map((file) => ({ ...file, sha256: 'a'.repeat(64), type: 'image/png' })),
      };
      const compiled = orThrow(compileEdition(withFiles));
      const document = JSON.parse(compiled.programs.get(compiled.screens.get(screen) ?? '') ?? '') as ProgramDocument;
      const player = forecastAt(document, instant);
      const server = forecastAt(screenProgram(plan, screen), instant);
      expect({ ...player, segment: { ...player.segment, loop: 0 } }).toEqual({
        ...server,
        segment: { ...server.segment, loop: 0 },
      });
    }),
    runs(80),
  );
});

test('a booking that never wins changes nothing', () => {
  for (const one of CASES) {
    const plan = planOf(one.request.plan);
    const [from, to] = range(one);
    const before = forecast(screenProgram(plan, one.request.screen), from, to).segments;
    const hidden = {
      ...plan,
      bookings: plan.bookings.map((booking) =>
        before.some((segment) => segment.id === booking.id) ? booking : { ...booking, onHold: true },
      ),
    };
    const strip = (list: readonly Segment[]) => list.map(({ loop: _loop, ...rest }) => rest);
    expect(strip(forecast(screenProgram(hidden, one.request.screen), from, to).segments)).toEqual(strip(before));
  }
});

const small = planOf({
  format: 'lanternpost/plan',
  version: 1,
  network: { name: 'Ternholm Line', backdrop: { media: 'flag' } },
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
  screens: [
    {
      id: 'hall',
      name: 'Hall',
      site: 'quay',
      width: 1920,
      height: 1080,
      tags: ['hall'],
      lightsOut: [{ windows: [['23:00', '05:00']] }],
    },
  ],
  media: ['flag', 'sailings', 'gale'].map((id) => ({
    id,
    name: id,
    kind: 'image',
    width: 1,
    height: 1,
    bytes: 1,
    added: '2026-01-01T00:00:00Z',
  })),
  playlists: [],
  bookings: [
    {
      id: 'morning',
      name: 'Morning sailings',
      content: { media: 'sailings', durationMs: 15000 },
      where: 'hall',
      priority: 3,
      created: '2026-01-01T00:00:00Z',
      when: { windows: [['06:00', '10:00']] },
    },
    {
      id: 'gale',
      name: 'Gale notice',
      content: { media: 'gale' },
      where: 'all',
      takeover: true,
      wake: true,
      created: '2026-01-02T00:00:00Z',
      when: { from: '2026-12-05', to: '2026-12-05', windows: [['04:00', '11:30']] },
    },
  ],
});

test('why says what shows, until when, and what waits under it', () => {
  expect(why(small, 'hall', at('2026-12-05T06:00:00Z')).sentence).toBe(
    'Gale notice, because it is a takeover until 11:30; under it Morning sailings, priority 3, waits (a takeover goes ahead of it), and the network’s backdrop waits (a takeover goes ahead of it).',
  );
  expect(why(small, 'hall', at('2026-12-06T02:00:00Z')).sentence).toBe(
    'Nothing, because it is lights-out until 05:00; under it the network’s backdrop waits (these are lights-out hours).',
  );
  expect(why(small, 'hall', at('2026-12-06T12:00:00Z')).reasons[0]).toMatchObject({
    source: 'backdrop',
    id: 'network',
    verdict: 'shows',
    rule: null,
  });
});

test('a takeover that wakes goes ahead of lights-out, others do not', () => {
  const night = at('2026-12-05T03:30:00Z');
  expect(forecastAt(screenProgram(small, 'hall'), night).segment.source).toBe('takeover');
  const asleep = { ...small, bookings: small.bookings.map((booking) => ({ ...booking, wake: false })) };
  expect(forecastAt(screenProgram(asleep, 'hall'), night).segment.source).toBe('lights-out');
});

test('a glance tells the picture, the end of its turn, and the next change', () => {
  const [hall] = glances(small, at('2026-12-06T05:00:07Z'));
  expect(hall).toEqual({
    screen: 'hall',
    source: 'booking',
    id: 'morning',
    media: 'sailings',
    until: at('2026-12-06T05:00:15Z'),
    next: { at: at('2026-12-06T09:00:00Z'), source: 'backdrop', id: 'network' },
  });
});

test("changes are counted once an instant, and a backdrop's midnight is none", () => {
  const day = at('2026-12-06T09:30:00Z');
  expect(changes(small, day, day + 16 * HOUR).map((one) => [new Date(one.at).toISOString(), one.screens])).toEqual([
    ['2026-12-06T22:00:00.000Z', 1],
  ]);
});
