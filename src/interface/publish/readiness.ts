import { MINUTE, SECOND, type Instant } from '@/core/instant';
import { counted } from '@/interface/kit/words/format';
import { timeLeft } from '@/interface/sending/rate';
import type { Fetches } from '@/services/editions';
import type { Line } from '@/services/screens';

/** When players will have what they fetch, by the speed of their lines. All of it: what they show in their first day is less. */
export interface Readiness {
  /** The first that is ready first. */
  readonly ready: readonly { readonly screen: string; readonly at: Instant; readonly bytesPerSecond: number }[];
  /** Those whose line was not measured yet. */
  readonly unknown: readonly string[];
  /** Those that have no room for it, and by how many bytes. */
  readonly short: readonly { readonly screen: string; readonly bytes: number }[];
}

/** `heard` are the screens whose players are online; for the others it isn't known when they will be back. */
export function readiness(
  { each }: Pick<Fetches, 'each'>,
  lines: ReadonlyMap<string, Line>,
  heard: ReadonlySet<string>,
  now: Instant,
): Readiness {
  const fetching = each.flatMap(({ bytes, screens }) =>
    screens.filter((screen) => heard.has(screen)).map((screen) => ({ screen, bytes, line: lines.get(screen) })),
  );
  const ready = fetching.flatMap(({ screen, bytes, line }) => {
    const bytesPerSecond = line?.bytesPerSecond ?? 0;
    return bytesPerSecond > 0 ? [{ screen, at: now + (bytes * SECOND) / bytesPerSecond, bytesPerSecond }] : [];
  });
  return {
    ready: ready.sort((a, b) => a.at - b.at),
    unknown: fetching.flatMap(({ screen, line }) => (line?.bytesPerSecond ? [] : [screen])),
    short: fetching.flatMap(({ screen, bytes, line }) =>
      line && line.freeBytes !== null && bytes > line.freeBytes ? [{ screen, bytes: bytes - line.freeBytes }] : [],
    ),
  };
}

/** One that takes so many times as long as most is named. */
const SLOW = 3;
const NAMED = 3;

/**
 * "At the speed of their lines 31 of 36 players ready by 14:20; Ostrey · Point at 2 Mbit/s by 16:05." Empty where no line was measured.
 * `momentOf` writes an instant; times are rounded up to whole minutes.
 */
export function readyWords(
  { ready }: Readiness,
  now: Instant,
  nameOf: (screen: string) => string,
  momentOf: (at: Instant) => string,
): string {
  const middle = ready[Math.floor((ready.length - 1) / 2)];
  if (!middle) return '';
  const usual = middle.at - now;
  const most = ready.filter(({ at }) => at - now <= Math.max(SLOW * usual, MINUTE));
  const slow = ready.slice(most.length).reverse();
  const last = most.at(-1)?.at ?? now;
  const who = slow.length > 0 ? `${most.length} of ${counted(ready.length, 'player')}` : allOf(ready.length);
  const minuteOf = (at: Instant) => momentOf(Math.ceil(at / MINUTE) * MINUTE);
  const whenOf = (at: Instant) =>
    at - now < 2 * MINUTE ? `within ${timeLeft(at - now, SECOND)}` : `by ${minuteOf(at)}`;
  const named = slow
    .slice(0, NAMED)
    .map(({ screen, at, bytesPerSecond }) => `${nameOf(screen)} at ${speedWords(bytesPerSecond)} ${whenOf(at)}`);
  const more = slow.length > NAMED ? [`${slow.length - NAMED} more after ${minuteOf(last)}`] : [];
  return `At the speed of their lines ${[`${who} ready ${whenOf(last)}`, ...named, ...more].join('; ')}.`;
}

const allOf = (n: number) => (n === 1 ? 'the one player that fetches is' : `all ${n} players that fetch are`);

/** "2 Mbit/s", "850 kbit/s". */
function speedWords(bytesPerSecond: number): string {
  const bits = bytesPerSecond * 8;
  const [unit, name] = bits >= 1e9 ? [1e9, 'Gbit/s'] : bits >= 1e6 ? [1e6, 'Mbit/s'] : [1e3, 'kbit/s'];
  return `${new Intl.NumberFormat('en-GB', { maximumSignificantDigits: 2 }).format(bits / unit)} ${name}`;
}
