import { readSiteTime } from '@/core/edition';
import type { Instant } from '@/core/instant';
import { toLocalTime, zoneTable } from '@/core/when';

const cache = new Map<string, Intl.DateTimeFormat>();

/** An instant as a zone's clock has it: by the zones of the core, which are the same on the server and in every browser. */
function format(at: Instant, zone: string, options: Intl.DateTimeFormatOptions): string {
  const key = JSON.stringify(options);
  let made = cache.get(key);
  if (!made)
    cache.set(key, (made = new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', hourCycle: 'h23', ...options })));
  return made.format(toLocalTime(zoneTable(zone), at));
}

/** HH:MM on a zone's clock, with seconds where there are any or where asked for. */
export function clockTime(at: Instant, zone: string, seconds = at % 60_000 !== 0): string {
  return format(at, zone, { hour: '2-digit', minute: '2-digit', ...(seconds ? { second: '2-digit' } : {}) });
}

/** The day on a zone's clock, with its year where it is not this one: `Mon 30 Nov`, `Sun 28 Nov 2027`. */
export function dayName(at: Instant, zone: string): string {
  const day = format(at, zone, { weekday: 'short', day: 'numeric', month: 'short' });
  const year = format(at, zone, { year: 'numeric' });
  return year === format(Date.now(), zone, { year: 'numeric' }) ? day : `${day} ${year}`;
}

export function dateTime(at: Instant, zone: string): string {
  return `${dayName(at, zone)}, ${clockTime(at, zone, false)}`;
}

/** A time that clocks show at each site, as an edition is planned for it, in words: `Tue 1 Dec, 06:00`. */
export const siteTimeWords = (text: string): string => dateTime(readSiteTime(text) ?? 0, 'UTC');

/** The clock, and the day where it is another than that of `near`. */
export function timeNear(at: Instant, near: Instant, zone: string): string {
  const day = dayName(at, zone);
  return day === dayName(near, zone) ? clockTime(at, zone) : `${day} ${clockTime(at, zone)}`;
}

/** A stretch of time as people say it, in its two largest units: "36 s", "12 min", "3 h 12 min", "2 d 4 h". */
export function spell(ms: number): string {
  const seconds = Math.round(ms / 1000);
  if (seconds < 60) return `${seconds} s`;
  const minutes = Math.round(seconds / 60);
  const [h, m] = [Math.floor(minutes / 60), minutes % 60];
  if (h === 0) return `${m} min`;
  if (h < 24) return m === 0 ? `${h} h` : `${h} h ${m} min`;
  const [d, rest] = [Math.floor(h / 24), h % 24];
  return rest === 0 ? `${d} d` : `${d} d ${rest} h`;
}

/** m:ss, or h:mm:ss; with tenths where a time is under ten seconds and not whole. */
export function duration(ms: number): string {
  if (ms < 10_000 && ms % 1000 !== 0) return `0:0${(ms / 1000).toFixed(1)}`;
  const seconds = Math.round(ms / 1000);
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  const two = (n: number) => String(n).padStart(2, '0');
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

export function megabytes(bytes: number): string {
  if (bytes >= 1e9) return `${new Intl.NumberFormat('en-GB', { maximumFractionDigits: 1 }).format(bytes / 1e9)} GB`;
  if (bytes === 0) return '0 MB';
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`;
  return `${new Intl.NumberFormat('en-GB', { maximumFractionDigits: bytes < 1e7 ? 1 : 0 }).format(bytes / 1e6)} MB`;
}

/** The same for two that are read together: "340 of 1,200 MB". */
export function bytesOf(some: number, all: number): string {
  const [unit, name] = all >= 1e10 ? [1e9, 'GB'] : all >= 1e6 ? [1e6, 'MB'] : [1e3, 'kB'];
  const digits = new Intl.NumberFormat('en-GB', { maximumFractionDigits: all < 1e7 || unit === 1e9 ? 1 : 0 });
  return `${digits.format(some / unit)} of ${digits.format(all / unit)} ${name}`;
}

const WHOLE = new Intl.NumberFormat('en-GB');

/** HH:MM of a time of day in milliseconds after midnight. */
export const clockOfDay = (time: number): string => clockTime(Math.floor(time / 60_000) * 60_000, 'UTC', false);

/**
 * When something is, on one's own clock and on those of the screens that it is for, each with whose it is: "19:13 your time, 20:13 in Oslo". The
 * clock alone where all read the same. `near`: days are named where they are another than that of this instant.
 */
export function timeOnClocks(at: Instant, near: Instant, own: string, others: readonly string[]): string {
  const mine = timeNear(at, near, own);
  const said = new Map<string, string[]>();
  for (const zone of others) {
    const reads = timeNear(at, near, zone);
    if (reads === mine && dayName(at, zone) === dayName(at, own)) continue;
    said.set(reads, [...(said.get(reads) ?? []), zoneName(zone)]);
  }
  if (said.size === 0) return mine;
  return [`${mine} your time`, ...[...said].map(([reads, places]) => `${reads} in ${places.join(' and ')}`)].join(', ');
}

/** "1 screen", "3 screens". */
export function counted(n: number, thing: string, many = `${thing}s`): string {
  return `${WHOLE.format(n)} ${n === 1 ? thing : many}`;
}

/** The zone's last name, as people say it: Europe/Oslo is Oslo. */
export function zoneName(zone: string): string {
  return (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');
}
