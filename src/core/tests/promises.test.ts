import fc from 'fast-check';
import { diffPlans } from '../edition';
import {
  NetworkForecast,
  airTime,
  changes,
  forecast,
  forecastAt,
  glances,
  neverShown,
  outcomeRange,
  outcomeRows,
  screenProgram,
  type Segment,
} from '../forecast';
import { readPlan, withPatches, type Plan } from '../plan';
import { findings } from '../preflight';
import {
  dateOfLocalTime,
  formatDate,
  readWhen,
  describeWhen,
  setsOf,
  startOfDate,
  addDays,
  whenOfSets,
  type LocalTime,
} from '../when';
import { orThrow } from '../refusal';
import { touchedScreens } from '../edition/touched';
import { randomPlan } from './random-plan';
import { runs } from './runs';

/** What the core's answers promise of each other, for plans that say everything a plan can say. */

const SCREENS = ['one', 'two'];
const RUNS = runs(60);
const segmentsOf = (plan: Plan, screen: string, from: number, to: number) =>
  forecast(screenProgram(plan, screen), from, to).segments;
/** A segment but for the number of its loop, which counts within one program. */
const plain = ({ loop: _loop, ...rest }: Segment) => rest;

test('a plan is written and read again with nothing lost', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan }) => {
      expect(readPlan(JSON.parse(JSON.stringify(plan)))).toEqual({ ok: true, value: plan });
    }),
    RUNS,
  );
});

test('all screens at once show what each shows alone, also after edits', () => {
  fc.assert(
    fc.property(randomPlan, randomPlan, ({ plan, from, to }, { plan: other }) => {
      const network = new NetworkForecast(from, to);
      const steps = [plan, { ...plan, bookings: other.bookings }, { ...other, bookings: plan.bookings }, other, plan];
      for (const step of steps) {
        const all = network.segments(step);
        for (const screen of SCREENS)
          expect(all.get(screen)?.map(plain)).toEqual(segmentsOf(step, screen, from, to).map(plain));
      }
    }),
    RUNS,
  );
});

test('screens that an edit is said not to touch show the same as before', () => {
  fc.assert(
    fc.property(randomPlan, randomPlan, ({ plan, from, to }, { plan: other }) => {
      const edited = { ...plan, bookings: [...plan.bookings.slice(1), ...other.bookings.slice(0, 1)] };
      const touched = touchedScreens(plan, edited);
      for (const screen of SCREENS.filter((one) => !touched.has(one)))
        expect(segmentsOf(edited, screen, from, to)).toEqual(segmentsOf(plan, screen, from, to));
    }),
    RUNS,
  );
});

test("time on air: files together fill what plays, and a booking has its segments' time", () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from, to }) => {
      const files = plan.media.map(({ id }) => airTime(plan, { kind: 'media', id }, from, to));
      const turns = new Map(plan.bookings.map(({ id }) => [id, airTime(plan, { kind: 'booking', id }, from, to)]));
      for (const screen of SCREENS) {
        const { plays, segments } = forecast(screenProgram(plan, screen), from, to, { plays: true });
        const lasting = (list: readonly { from: number; to: number }[]) =>
          list.reduce((sum, one) => sum + one.to - one.from, 0);
        const here = files.flatMap((list) => list.filter((one) => one.screen === screen));
        expect(here.reduce((sum, { ms }) => sum + ms, 0)).toBe(lasting(plays));
        expect(here.reduce((sum, one) => sum + one.plays, 0)).toBe(plays.length);
        for (const [id, list] of turns)
          expect(list.find((one) => one.screen === screen)?.ms ?? 0).toBe(
            lasting(segments.filter((one) => one.id === id && one.source !== 'backdrop')),
          );
      }
    }),
    RUNS,
  );
});

test('what never shows has no time on air, and all else has some', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from, to }) => {
      const never = new Set(neverShown(plan, from, to).map(({ subject }) => `${subject.kind} ${subject.id}`));
      for (const [kind, list] of [
        ['booking', plan.bookings],
        ['playlist', plan.playlists],
        ['media', plan.media],
      ] as const)
        for (const { id } of list)
          expect([kind, id, never.has(`${kind} ${id}`)]).toEqual([
            kind,
            id,
            airTime(plan, { kind, id }, from, to).length === 0,
          ]);
    }),
    RUNS,
  );
});

test('who is said to hide a booking that never shows does show while it would', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from, to }) => {
      for (const { subject, hiddenBy, because } of neverShown(plan, from, to)) {
        if (because !== 'hidden' || subject.kind !== 'booking') continue;
        expect(hiddenBy.length).toBeGreaterThan(0);
        const alone = { ...plan, bookings: plan.bookings.filter(({ id }) => id === subject.id) };
        const bright = { ...alone, screens: alone.screens.map(({ lightsOut: _dark, ...screen }) => screen) };
        expect(airTime(bright, subject, from, to)).not.toEqual([]);
      }
    }),
    RUNS,
  );
});

test("a glance is the forecast's picture, and what it says comes next does", () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from, to }) => {
      for (const at of [from, Math.floor((from + to) / 2), to])
        for (const { screen, source, id, media, until, next } of glances(plan, at)) {
          const { segment, play } = forecastAt(screenProgram(plan, screen), at);
          expect([source, id, media]).toEqual([segment.source, segment.id, play?.media ?? null]);
          if (until !== null) {
            expect(until).toBeGreaterThan(at);
            expect(forecastAt(screenProgram(plan, screen), until - 1).play?.media).toBe(media);
          }
          if (!next) continue;
          const after = forecastAt(screenProgram(plan, screen), next.at).segment;
          const before = forecastAt(screenProgram(plan, screen), next.at - 1).segment;
          expect([after.source, after.id]).toEqual([next.source, next.id]);
          expect([before.source, before.id]).toEqual([source, id]);
        }
    }),
    RUNS,
  );
});

test('changes stand where some screen changes what wins, and nowhere else', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from, to }) => {
      const at = new Map<number, number>();
      for (const screen of SCREENS)
        segmentsOf(plan, screen, from, to).forEach((one, i, all) => {
          const before = all[i - 1];
          if (before && (before.source !== one.source || before.id !== one.id))
            at.set(one.from, (at.get(one.from) ?? 0) + 1);
        });
      expect(changes(plan, from, to).map((one) => [one.at, one.screens])).toEqual([...at].sort((a, b) => a[0] - b[0]));
    }),
    RUNS,
  );
});

test('the outcome has each screen in one row, and each row tiles its dates', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from, to }) => {
      const [first, last] = [from, to].map((one) => dateOfLocalTime(one as LocalTime)) as [never, never];
      const rows = outcomeRows(new NetworkForecast(...outcomeRange(first, last)).outcomes(plan), first, last);
      expect(rows.flatMap(({ screens }) => screens).sort()).toEqual(SCREENS);
      for (const { spans } of rows) {
        expect(spans[0]?.from).toBe(startOfDate(first));
        expect(spans.at(-1)?.to).toBe(startOfDate(addDays(last, 1)));
        spans.slice(1).forEach((span, i) => expect(span.from).toBe(spans[i]?.to));
      }
    }),
    RUNS,
  );
});

test('a plan does not differ from itself, nor from one without what is on hold', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from, to }) => {
      expect(diffPlans(plan, structuredClone(plan), from, to)).toEqual([]);
      const without = { ...plan, bookings: plan.bookings.filter(({ onHold }) => !onHold) };
      expect(diffPlans(plan, without, from, to)).toEqual([]);
    }),
    RUNS,
  );
});

test('each finding speaks of things of the plan, and each fix makes a valid plan without it', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan, from, to }) => {
      const known = new Set(
        [plan.bookings, plan.media, plan.screens, plan.sites, plan.playlists].flatMap((list) =>
          list.map(({ id }) => id),
        ),
      );
      for (const finding of findings(plan, from, to)) {
        expect(finding.about.filter((id) => !known.has(id))).toEqual([]);
        expect(finding.screens.filter((id) => !SCREENS.includes(id))).toEqual([]);
        expect(finding.sentence).toMatch(/^\S.*\.$/);
        for (const fix of finding.fixes) {
          const read = readPlan(withPatches(plan, fix.edits));
          if (!read.ok) throw new Error(`${fix.label}: ${JSON.stringify(read.problems)}`);
          const still = findings(read.value, from, to).filter(
            (one) =>
              one.kind === finding.kind &&
              one.about.join() === finding.about.join() &&
              one.screens.some((id) => finding.screens.includes(id)),
          );
          expect([finding.kind, fix.label, still.map((one) => one.sentence)]).toEqual([finding.kind, fix.label, []]);
        }
      }
    }),
    RUNS,
  );
});

test('what is read from the words of a When means what was described', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan }) => {
      for (const { when } of plan.bookings) {
        const words = describeWhen(when);
        expect(words).not.toMatch(/undefined|NaN|null/);
        const read = readWhen(words, { calendars: plan.calendars, today: startOfToday });
        // What says nothing of its beginning begins today, or by the end that is said.
        const today = formatDate(startOfToday);
        const begun = setsOf(when).map((set) => ({
          from: set.to !== undefined && set.to < today ? set.to : today,
          ...set,
        }));
        expect(describeWhen(orThrow(read))).toBe(words === 'always' ? words : describeWhen(whenOfSets(begun)));
      }
    }),
    RUNS,
  );
});

const startOfToday = dateOfLocalTime(Date.UTC(2026, 2, 1) as LocalTime);
