import { nameAmong } from '../../booking';
import { knownContent } from '../../plan/contents';
import { objectIn, type Patch } from '../../plan/patch';
import type { Content, Plan } from '../../plan/schema';
import { addDays, datesOf, formatDate, parseDate, setsOf, type LocalDate } from '../../when';
import { whenOf } from './becomes';
import type { CalendarEvent } from './event';

/** What an event does not tell: what it shows, and where. */
export interface ImportChoices {
  readonly content: Content;
  /** A selector, for events that have no categories. */
  readonly where: string;
  /** Read all times on each site's own clock, whatever zone they were written in. */
  readonly siteClock: boolean;
  /** RFC 3339. */
  readonly created: string;
}

/** Events as new bookings: what is known of them goes ahead of the choices. Names that are taken get a number. */
export function bookingsOf(plan: Plan, events: readonly CalendarEvent[], choices: ImportChoices): Patch<'booking'>[] {
  const has = (content: Content) => {
    const { kind, id } = knownContent(content);
    return kind === 'input' || objectIn(plan, kind, id) !== null;
  };
  const patches: Patch<'booking'>[] = [];
  const taken = new Set(plan.bookings.map((one) => one.name));
  for (const event of events) {
    const name = nameAmong(taken, event.summary);
    taken.add(name);
    const content = event.content && has(event.content) ? event.content : choices.content;
    patches.push({
      kind: 'booking',
      add: {
        name,
        content,
        where: event.where ?? (event.tags.length > 0 ? event.tags.join(' or ') : choices.where),
        priority: event.priority,
        ...(event.takeover ? { takeover: true } : {}),
        ...(event.wake ? { wake: true } : {}),
        ...(event.weave ? { weave: event.weave } : {}),
        ...(event.onHold ? { onHold: true } : {}),
        created: choices.created,
        when: whenOf(event.when, choices.siteClock),
      },
    });
  }
  return patches;
}

const NO_CALENDARS = { calendar: () => new Set<LocalDate>() };

/** The dates that events touch, ascending, for a calendar; what repeats without end is written out to `until` (inclusive). */
export function datesOfEvents(events: readonly CalendarEvent[], until: LocalDate): string[] {
  const dates = events.flatMap(({ when }) =>
    setsOf(when).flatMap((set) => {
      const from = set.from === undefined ? addDays(until, -366) : (parseDate(set.from) as LocalDate);
      const also = (set.also ?? []).map((text) => parseDate(text) as LocalDate);
      const first = Math.min(from, ...also) as LocalDate;
      const last = set.to === undefined ? until : (Math.max(parseDate(set.to) as LocalDate, ...also) as LocalDate);
      const more = Math.max(0, ...(set.windows ?? []).map(([, , days = 0]) => days));
      return datesOf(set, NO_CALENDARS, first, last).flatMap((date) =>
        Array.from({ length: more + 1 }, (_, i) => addDays(date, i)),
      );
    }),
  );
  return [...new Set(dates)].sort((a, b) => a - b).map(formatDate);
}
