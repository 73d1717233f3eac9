import { WEEKDAYS, parseRule, setsOf, weeklyDays, whenOfSets, type SetOfHours, type When } from '@/core/when';

/** Lights-out hours as a week that can be painted: Monday to Sunday, in half hours. */

export const SLOTS = 48;
const MINUTES_A_SLOT = 30;
const DAYS = WEEKDAYS.length;

/** A week: for each day, Monday first, whether the display is off in each half hour. */
export type Week = readonly (readonly boolean[])[];

export interface Painted {
  readonly week: Week;
  /** Dates that are left out, YYYY-MM-DD. */
  readonly except: readonly string[];
}

export const EMPTY_WEEK: Week = Array.from({ length: DAYS }, () => Array.from({ length: SLOTS }, () => false));

/**
 * The week that lights-out hours come to from today on (YYYY-MM-DD), with the dates that are left out. Null if they can't be painted: they follow opening hours, the
 * sun, dates or calendars, don't lie on half hours, or leave out different dates.
 */
export function weekOf(list: readonly When[], today: string): Painted | null {
  const week = EMPTY_WEEK.map((day) => [...day]);
  const sets = list.flatMap((when) => setsOf(when));
  const [first] = sets;
  const except = first?.except ?? [];
  for (const { repeat, windows, from = today, except: own = [], ...others } of sets) {
    // What begins later than today isn't every week yet.
    if (Object.keys(others).length > 0 || from > today || own.join() !== except.join()) return null;
    const days = daysOf(repeat);
    const spans = windows === undefined ? [[0, SLOTS] as const] : windows.map(spanOf);
    if (!days) return null;
    for (const span of spans) {
      if (!span) return null;
      for (const day of days)
        for (let at = span[0]; at < span[1]; at++) {
          const row = week[(day + Math.floor(at / SLOTS)) % DAYS];
          if (row) row[at % SLOTS] = true;
        }
    }
  }
  // A night that goes on after a date that is left out can't be told apart from one that begins there.
  return { week, except };
}

function daysOf(repeat: string | undefined): readonly number[] | null {
  if (repeat === undefined) return WEEKDAYS.map((_, day) => day);
  const rule = parseRule(repeat);
  return rule.ok && rule.value.interval === 1 ? weeklyDays(rule.value) : null;
}

/** From which slot to which, the second past the last slot of the day where it ends on the next. Null for other edges. */
function spanOf([start, end, days]: NonNullable<SetOfHours['windows']>[number]): readonly [number, number] | null {
  const [from, to] = [slotOf(start), slotOf(end)];
  if (from === null || to === null || days !== undefined) return null;
  return [from, to <= from ? to + SLOTS : to];
}

function slotOf(edge: string): number | null {
  const clock = /^(\d{2}):(\d{2})$/.exec(edge);
  const minutes = clock ? Number(clock[1]) * 60 + Number(clock[2]) : NaN;
  return minutes % MINUTES_A_SLOT === 0 ? minutes / MINUTES_A_SLOT : null;
}

/** The clock time at which a slot begins: "08:30"; "24:00" for the end of the day. */
export function clockOf(slot: number): string {
  const minutes = slot * MINUTES_A_SLOT;
  return [Math.floor(minutes / 60), minutes % 60].map((part) => String(part).padStart(2, '0')).join(':');
}

/** Lights-out hours of a painted week, from today on: days that are alike together, a night as one window. None for a week without any. */
export function whenOf({ week, except }: Painted, today: string): When[] {
  const runs = week.map(runsOf);
  /** Whether a day's first run is the end of the night that began the day before. */
  const isNight = runs.map((_, day) => {
    const [last, first] = [runs[(day + DAYS - 1) % DAYS]?.at(-1), runs[day]?.[0]];
    // A whole day stays a day of its own, and a night is shorter than a day.
    return !!last && !!first && last[0] > 0 && last[1] === SLOTS && first[0] === 0 && first[1] < last[0];
  });
  const windows = runs.map((list, day) => {
    const own = isNight[day] ? list.slice(1) : list;
    const morning = runs[(day + 1) % DAYS]?.[0];
    return own.map(([from, to], i) =>
      i === own.length - 1 && to === SLOTS && isNight[(day + 1) % DAYS] && morning
        ? ([clockOf(from), clockOf(morning[1])] as const)
        : ([clockOf(from), clockOf(to)] as const),
    );
  });
  const alike = new Map<string, number[]>();
  for (const [day, list] of windows.entries()) {
    const key = JSON.stringify(list);
    if (list.length > 0) alike.set(key, [...(alike.get(key) ?? []), day]);
  }
  const WHOLE = JSON.stringify([['00:00', '24:00']]);
  return [...alike].map(([key, days]) =>
    whenOfSets([
      {
        ...(days.length === DAYS
          ? {}
          : { from: today, repeat: `FREQ=WEEKLY;BYDAY=${days.map((day) => WEEKDAYS[day]).join()}` }),
        ...(except.length > 0 ? { except: [...except] } : {}),
        ...(key === WHOLE && (days.length < DAYS || except.length > 0)
          ? {}
          : { windows: JSON.parse(key) as [string, string][] }),
      },
    ]),
  );
}

/** The stretches of a day in which the display is off: from a slot to a slot. */
function runsOf(day: readonly boolean[]): (readonly [number, number])[] {
  const edges = day.flatMap((off, slot) => (off !== (day[slot - 1] ?? false) ? [slot] : []));
  if (day.at(-1)) edges.push(SLOTS);
  return Array.from({ length: edges.length / 2 }, (_, i) => [edges[2 * i] ?? 0, edges[2 * i + 1] ?? SLOTS] as const);
}

/** The week with a rectangle of it painted: days and half hours from one corner to the other. */
export function painted(
  week: Week,
  [day, slot]: readonly [number, number],
  [otherDay, otherSlot]: readonly [number, number],
  off: boolean,
): Week {
  const within = (at: number, a: number, b: number) => Math.min(a, b) <= at && at <= Math.max(a, b);
  return week.map((row, d) =>
    within(d, day, otherDay) ? row.map((was, s) => (within(s, slot, otherSlot) ? off : was)) : row,
  );
}
