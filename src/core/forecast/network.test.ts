import { DAY, HOUR } from '../instant';
import { readPlan, type Booking, type Plan } from '../plan';
import { orThrow } from '../refusal';
import { readRows } from '../tests/rows';
import { addDays, startOfDate, type LocalDate } from '../when';
import { NetworkForecast, forecast, glances, outcomeRows, outcomeRange, screenProgram, forecastAt } from '.';

const PLANS = readRows<{ request: { plan: unknown; from: string } }>('forecast/cases.jsonl').map(({ request }) => ({
  plan: orThrow(readPlan(request.plan)),
  from: Date.parse(request.from),
}));

/** The loop's number differs between a program of its own and a shared one; what shows does not. */
const plain = (plan: Plan, from: number, to: number) =>
  new Map(
    plan.screens.map(({ id }) => [
      id,
      forecast(screenProgram(plan, id), from, to).segments.map(({ loop: _loop, ...rest }) => rest),
    ]),
  );
const network = (kept: NetworkForecast, plan: Plan) =>
  new Map([...kept.segments(plan)].map(([screen, list]) => [screen, list.map(({ loop: _loop, ...rest }) => rest)]));

test('all screens at once show what each shows alone', () => {
  for (const { plan, from } of PLANS)
    expect(network(new NetworkForecast(from, from + 4 * DAY), plan)).toEqual(plain(plan, from, from + 4 * DAY));
});

test('after any edit, what was kept and what is computed again make the same as a new start', () => {
  for (const { plan, from } of PLANS) {
    const to = from + 3 * DAY;
    const kept = new NetworkForecast(from, to);
    kept.segments(plan);
    const [first, ...others] = plan.bookings;
    if (!first) continue;
    const moved: Booking = { ...first, when: { windows: [['03:10', '07:20']] } };
    const edits: Plan[] = [
      { ...plan, bookings: [moved, ...others] },
      { ...plan, bookings: others },
      {
        ...plan,
        bookings: [
          ...plan.bookings,
          { ...moved, id: 'new', where: `screen:${plan.screens[0]?.id ?? 'x'}`, takeover: true },
        ],
      },
      { ...plan, bookings: plan.bookings.map((booking) => ({ ...booking, onHold: booking.id !== first.id })) },
      { ...plan, sites: plan.sites.map((site) => ({ ...site, timeZone: 'Asia/Tokyo' })) },
      { ...plan, playlists: plan.playlists.map((list) => ({ ...list, items: list.items.slice(0, 1) })) },
      plan,
    ];
    for (const edited of edits) expect(network(kept, edited)).toEqual(plain(edited, from, to));
  }
});

test('screens that no selector tells apart share one list', () => {
  const { plan, from } = PLANS[0] as { plan: Plan; from: number };
  const [screen] = plan.screens;
  const twins = {
    ...plan,
    screens: [...plan.screens, { ...(screen as Plan['screens'][0]), id: 'twin', name: 'Twin' }],
  };
  const all = new NetworkForecast(from, from + HOUR).segments(twins);
  expect(all.get('twin')).toBe(all.get(screen?.id ?? ''));
});

test('a glance at all screens is what each shows, also where they share a program', () => {
  for (const { plan, from } of PLANS)
    for (const glance of glances(plan, from)) {
      const { segment, play } = forecastAt(screenProgram(plan, glance.screen), from);
      expect(glance).toMatchObject({ source: segment.source, id: segment.id, media: play?.media ?? null });
    }
});

test('the outcome in rows: every screen is in one, and each row tiles the dates of its walls', () => {
  for (const { plan, from } of PLANS) {
    const first = Math.floor(from / DAY) as LocalDate;
    const last = addDays(first, 2);
    const rows = outcomeRows(new NetworkForecast(...outcomeRange(first, last)).outcomes(plan), first, last);
    expect(rows.flatMap((row) => row.screens).sort()).toEqual(plan.screens.map(({ id }) => id).sort());
    for (const { spans } of rows) {
      expect([spans[0]?.from, spans.at(-1)?.to]).toEqual([startOfDate(first), startOfDate(addDays(last, 1))]);
      spans.slice(1).forEach((span, i) => expect(span.from).toBe(spans[i]?.to));
    }
  }
});
