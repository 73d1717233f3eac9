import { createRequire } from 'node:module';
import { DateTime } from 'luxon';
import type * as Rrule from 'rrule';
import type { Plan } from '@/core/plan';
import { matches, selectorOf, screenTerms } from '@/core/selector';
import { setsOf, type SetOfHours } from '@/core/when';

// The package names its exports in a way that Node's import does not see.
const { RRule } = createRequire(import.meta.url)('rrule') as typeof Rrule;

/** A segment as both ways can be compared. */
export interface Plain {
  readonly from: number;
  readonly to: number;
  readonly source: string;
  readonly id: string | null;
  readonly since: number | null;
}

interface Candidate {
  readonly from: number;
  readonly to: number;
  readonly source: string;
  readonly id: string;
  readonly rank: readonly number[];
}

/** The direct way: for each screen, filter the bookings, expand each by rrule, convert by luxon, sort and sweep. Good for plans whose content always has something to show. */
export function directSegments(plan: Plan, screenId: string, from: number, to: number): Plain[] {
  const screen = plan.screens.find((one) => one.id === screenId);
  const site = plan.sites.find((one) => one.id === screen?.site);
  if (!screen || !site) throw new Error('no such screen');
  const terms = screenTerms(screen, site.tags);
  const selected = plan.bookings.filter((booking) => {
    return !booking.onHold && matches(selectorOf(booking.where), terms);
  });
  const dark = (screen.lightsOut ?? []).flatMap(setsOf).flatMap((set) => expand(set, site.timeZone, from, to));
  const isDark = (at: number) => dark.some((one) => one.from <= at && at < one.to);
  const candidates = selected.flatMap((booking): Candidate[] =>
    setsOf(booking.when)
      .flatMap((set) => expand(set, site.timeZone, from, to))
      .map((one) => ({
        ...one,
        source: booking.takeover ? 'takeover' : 'booking',
        id: booking.id,
        rank: [
          booking.takeover ? 2 : 1,
          booking.priority,
          one.from,
          Date.parse(booking.created),
          booking.wake && booking.takeover ? 1 : 0,
        ],
      })),
  );
  for (const one of expand({}, site.timeZone, from, to))
    candidates.push({ ...one, source: 'backdrop', id: 'network', rank: [0, 0, one.from, 0, 0] });
  const edges = [...new Set([from, to, ...[...candidates, ...dark].flatMap((one) => [one.from, one.to])])]
    .filter((at) => at >= from && at <= to)
    .sort((a, b) => a - b);
  const result: Plain[] = [];
  edges.slice(0, -1).forEach((at, i) => {
    const end = edges[i + 1] as number;
    const night = isDark(at);
    const [top] = candidates
      .filter((one) => one.from <= at && at < one.to && (!night || one.rank[4] === 1))
      .sort(
        (a, b) =>
          (b.rank[0] ?? 0) - (a.rank[0] ?? 0) ||
          (b.rank[1] ?? 0) - (a.rank[1] ?? 0) ||
          (b.rank[2] ?? 0) - (a.rank[2] ?? 0) ||
          (b.rank[3] ?? 0) - (a.rank[3] ?? 0) ||
          (a.id < b.id ? 1 : -1),
      );
    const segment = top
      ? { from: at, to: end, source: top.source, id: top.id, since: top.from }
      : { from: at, to: end, source: night ? 'lights-out' : 'nothing', id: null, since: null };
    const last = result.at(-1);
    if (last && last.source === segment.source && last.id === segment.id && last.since === segment.since)
      result[result.length - 1] = { ...last, to: end };
    else result.push(segment);
  });
  return result;
}

function expand(when: SetOfHours, siteZone: string, from: number, to: number): { from: number; to: number }[] {
  const zone = when.clock && when.clock !== 'site' ? when.clock : siteZone;
  const first = DateTime.fromMillis(from, { zone }).startOf('day').minus({ days: 3 });
  const days = Math.ceil((to - from) / 86_400_000) + 5;
  const utc = (date: DateTime) => new Date(Date.UTC(date.year, date.month - 1, date.day));
  const dates = when.repeat
    ? new RRule({ ...RRule.parseString(when.repeat), dtstart: new Date(`${when.from}T00:00:00Z`) })
        .between(utc(first), utc(first.plus({ days })), true)
        .map((date) => date.toISOString().slice(0, 10))
    : Array.from({ length: days }, (_, i) => first.plus({ days: i }).toISODate() ?? '');
  return dates.flatMap((date) =>
    (when.windows ?? [['00:00', '24:00']]).flatMap(([start, end]) => {
      const next = DateTime.fromISO(date, { zone: 'utc' }).plus({ days: 1 }).toISODate();
      const begin = toMillis(date, start, zone);
      const finish =
        end === '24:00' ? toMillis(next ?? '', '00:00', zone) : toMillis(end <= start ? (next ?? '') : date, end, zone);
      return finish > begin && begin < to && finish > from ? [{ from: begin, to: finish }] : [];
    }),
  );
}

/** By luxon; the later of two readings of a repeated hour is put back to the first. */
function toMillis(date: string, time: string, zone: string): number {
  const at = DateTime.fromISO(`${date}T${time}`, { zone });
  const earlier = at.minus({ hours: 1 });
  return earlier.toFormat('yyyy-MM-dd HH:mm') === at.toFormat('yyyy-MM-dd HH:mm') ? earlier.toMillis() : at.toMillis();
}
