import { z } from 'zod';
import { WEEKDAYS, hoursSchema, siteSchema, type OpeningHours, type Site } from '@/core';

/** Weekly opening hours as one types them: "Mo-Fr 05:30-22:00, Sa 08:00-12:00 13:00-18:00". Days not named are closed. */

export const HOURS_HINT = 'As in Mo-Fr 05:30-22:00, Sa-Su 08:00-18:00. Days not named are closed; empty: no hours kept';

const DAYS = WEEKDAYS.map((day) => day.charAt(0) + day.slice(1).toLowerCase());

export function hoursText(hours: OpeningHours | undefined): string {
  const weekly = hours?.weekly ?? {};
  const groups: { first: number; last: number; text: string }[] = [];
  WEEKDAYS.forEach((day, i) => {
    const text = (weekly[day] ?? []).map(([open, close]) => `${open}-${close}`).join(' ');
    const before = groups.at(-1);
    if (text === '') return;
    if (before && before.text === text && before.last === i - 1) before.last = i;
    else groups.push({ first: i, last: i, text });
  });
  return groups
    .map(({ first, last, text }) => `${DAYS[first]}${last > first ? `-${DAYS[last]}` : ''} ${text}`)
    .join(', ');
}

/** Reads the hours; null where a part is not understood, with that part. */
function readHours(text: string): Pick<OpeningHours, 'weekly'> | { wrong: string } {
  const weekly: NonNullable<OpeningHours['weekly']> = {};
  for (const part of text.split(',').map((one) => one.trim())) {
    const match = /^([a-z]{2})(?:\s*[-–]\s*([a-z]{2}))?((?:\s+\d\d:\d\d\s*[-–]\s*\d\d:\d\d)+)$/i.exec(part);
    const first = DAYS.findIndex((day) => day.toLowerCase() === match?.[1]?.toLowerCase());
    const last =
      match?.[2] === undefined ? first : DAYS.findIndex((day) => day.toLowerCase() === match[2]?.toLowerCase());
    if (!match || first < 0 || last < first) return { wrong: part };
    const periods = [...(match[3] ?? '').matchAll(/(\d\d:\d\d)\s*[-–]\s*(\d\d:\d\d)/g)].map(
      ([, open, close]) => [open, close] as [string, string],
    );
    for (const day of WEEKDAYS.slice(first, last + 1)) weekly[day] = periods;
  }
  return { weekly };
}

export const hoursTextSchema = z
  .string()
  .transform((text, context): OpeningHours | undefined => {
    if (text.trim() === '') return undefined;
    const read = readHours(text);
    if (!('wrong' in read)) return read;
    context.addIssue({ code: 'custom', message: `"${read.wrong}" is not understood: write it as Mo-Fr 05:30-22:00.` });
    return z.NEVER;
  })
  .pipe(hoursSchema.optional());

export const EXCEPTIONS_HINT = 'Dates with other hours: 2026-12-25 closed, 2026-12-31 08:00-14:00';

/** Dates with hours of their own, as one types them: "2026-12-25 closed, 2026-12-31 08:00-14:00". */
export function exceptionsText(hours: OpeningHours | undefined): string {
  return Object.entries(hours?.dates ?? {})
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([date, periods]) =>
      periods.length === 0
        ? `${date} closed`
        : `${date} ${periods.map(([open, close]) => `${open}-${close}`).join(' ')}`,
    )
    .join(', ');
}

export const exceptionsTextSchema = z
  .string()
  .transform((text, context): OpeningHours['dates'] => {
    const dates: NonNullable<OpeningHours['dates']> = {};
    for (const part of text.split(',').map((one) => one.trim())) {
      if (part === '') continue;
      const match = /^(\d{4}-\d\d-\d\d)\s+(?:(closed)|((?:\d\d:\d\d\s*[-–]\s*\d\d:\d\d\s*)+))$/i.exec(part);
      if (!match?.[1]) {
        const message = `"${part}" is not understood: write it as 2026-12-25 closed, or 2026-12-31 08:00-14:00.`;
        context.addIssue({ code: 'custom', message });
        return z.NEVER;
      }
      dates[match[1]] = [...(match[3] ?? '').matchAll(/(\d\d:\d\d)\s*[-–]\s*(\d\d:\d\d)/g)].map(
        ([, open, close]) => [open, close] as [string, string],
      );
    }
    return Object.keys(dates).length === 0 ? undefined : dates;
  })
  .pipe(hoursSchema.shape.dates);

/** A place as latitude and longitude in degrees: "62.1, 5.4". */
export const placeText = (location: Site['location']) =>
  location === undefined ? '' : `${location.latitude}, ${location.longitude}`;

export const placeTextSchema = z.string().transform((text, context): Site['location'] => {
  if (text.trim() === '') return undefined;
  const match = /^\s*(-?\d+(?:\.\d+)?)\s*[,;\s]\s*(-?\d+(?:\.\d+)?)\s*$/.exec(text);
  const location = { latitude: Number(match?.[1]), longitude: Number(match?.[2]) };
  if (match && siteSchema.shape.location.safeParse(location).success) return location;
  const message = 'Write latitude and longitude in degrees: 62.1, 5.4 (north and east; south and west are negative).';
  context.addIssue({ code: 'custom', message });
  return z.NEVER;
});
