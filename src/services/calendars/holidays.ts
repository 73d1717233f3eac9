import Holidays from 'date-holidays';
import { changed, type Calendar } from '@/core/plan';
import { addDays, formatDate, parseDate, type LocalDate } from '@/core/when';
import { NetworkRow } from '@/database';
import { Refusal } from '@/core/refusal';
import type { Actor } from '../people';
import { draftPlan, edit } from '../plan';

/** Public holidays from the package date-holidays (data: CC BY 3.0, Tommy Bajer and contributors). */

/** A country, or a region of one, by its ISO 3166 code. */
export interface Choice {
  readonly code: string;
  readonly name: string;
}

const choices = (names: Record<string, string> | undefined): Choice[] =>
  Object.entries(names ?? {})
    .map(([code, name]) => ({ code, name }))
    .sort((a, b) => a.name.localeCompare(b.name));

/** The countries whose public holidays are known, by their English names. */
export const holidayCountries = (): Choice[] => choices(new Holidays().getCountries('en'));

/** The regions of a country that have holidays of their own; empty where it has none. */
export const holidayRegions = (country: string): Choice[] => choices(new Holidays().getStates(country, 'en'));

/** A calendar reaches from the beginning of the year before to the end of the third year after. */
const YEARS_BACK = 1;
const YEARS_AHEAD = 3;
const DAY_MS = 86_400_000;

/** A public holiday: its date (YYYY-MM-DD), and what people call it in English. */
export interface Holiday {
  readonly date: string;
  readonly name: string;
}

/** All public holidays around a year, ascending; two of one date are one. Throws 422 for a country or region that is unknown. */
export function holidaysOf({ country, region }: NonNullable<Calendar['holidays']>, year: number): Holiday[] {
  if (!holidayCountries().some(({ code }) => code === country))
    throw new Refusal(422, `The public holidays of “${country}” aren’t known. Choose another country.`);
  if (region !== undefined && !holidayRegions(country).some(({ code }) => code === region))
    throw new Refusal(422, `“${region}” isn’t a region of ${country} with holidays of its own. Choose another.`);
  const source = region === undefined ? new Holidays(country) : new Holidays(country, region);
  source.setLanguages('en');
  const names = new Map<LocalDate, string[]>();
  for (let y = year - YEARS_BACK; y <= year + YEARS_AHEAD; y++)
    for (const { type, name, date, start, end } of source.getHolidays(y)) {
      if (type !== 'public') continue;
      const first = parseDate(date.slice(0, 10)) as LocalDate;
      const days = Math.max(1, Math.round((end.getTime() - start.getTime()) / DAY_MS));
      for (let i = 0; i < days; i++) {
        const day = addDays(first, i);
        names.set(day, [...new Set([...(names.get(day) ?? []), name])]);
      }
    }
  return [...names]
    .sort(([a], [b]) => a - b)
    .map(([date, called]) => ({ date: formatDate(date), name: called.join(', ') }));
}

/** The dates of all public holidays around a year, ascending. Throws 422 for a country or region that is unknown. */
export const holidayDates = (place: NonNullable<Calendar['holidays']>, year: number): string[] =>
  holidaysOf(place, year).map(({ date }) => date);

/**
 * Brings the calendars of all networks that follow public holidays up to the year of `now`, as changes of the server's own: they
 * wait in the docket like any other. Returns how many calendars changed.
 */
export async function refreshHolidays(now: Date): Promise<number> {
  let count = 0;
  for (const { id: networkId } of await NetworkRow.findAll({ attributes: ['id'], raw: true })) {
    const actor: Actor = { networkId, personId: null, name: 'Lanternpost', may: ['plan'] };
    const { plan } = await draftPlan(actor);
    const edits = plan.calendars.flatMap((calendar) =>
      calendar.holidays
        ? changed('calendar', calendar, { dates: holidayDates(calendar.holidays, now.getUTCFullYear()) })
        : [],
    );
    if (edits.length > 0) count += (await edit(actor, edits)).changes.length;
  }
  return count;
}
