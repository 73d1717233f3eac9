import type { Instant } from '../instant';
import { drawnOnly } from '../plan/contents';
import { intervalAt } from '../when';
import type { Forecast } from './forecast';
import type { Play } from './plays';
import { placeOf, type ScreenProgram } from './program';
import { itemInstants, type Segment } from './segments';

/**
 * Stepping by hand: a person in front of a screen turns to another item of what plays, forward or back. After a rest it goes on by the clock. In a
 * presentation each item waits for the next step. Only that screen knows of a step, so forecasts go by the clock, and for a
 * presentation they give its first item.
 */
export interface Stepped extends Pick<Segment, 'source' | 'id' | 'since' | 'loop'> {
  readonly item: number;
  readonly at: Instant;
  /** From then on it goes by the clock; infinite in a presentation. */
  readonly until: Instant;
}

/** Whether each item of a loop waits for a key or a press. */
export const isPresented = ({ loops }: ScreenProgram, loop: number): boolean =>
  (loops[loop]?.length ?? 0) > 1 && loops[loop]?.every((item) => item.stays) === true;

/**
 * The next item after the one that is seen at an instant, or the one before: of those that may play then, round and round. Null where there is nothing to step:
 * one item alone, lights-out hours, a takeover that isn't a presentation, or a screen that doesn't allow it. `seen` is what was stepped to before.
 */
export function stepFrom(
  program: ScreenProgram,
  { segment, play }: { readonly segment: Segment; readonly play: Play | null },
  seen: Stepped | null,
  at: Instant,
  by: 1 | -1,
): Stepped | null {
  const { source, id, since, loop } = segment;
  const items = program.loops[loop] ?? [];
  const isShow = isPresented(program, loop);
  if (source === 'lights-out' || items.length < 2) return null;
  if (!isShow && (source === 'takeover' || program.stepRestMs === undefined)) return null;
  const place = placeOf(program);
  const there = items.flatMap((item, i) => (intervalAt(itemInstants(program, item, place, at, at + 1), at) ? [i] : []));
  if (there.length < 2) return null;
  const now =
    seen && holds(seen, segment, at) ? seen.item : play?.loop === loop ? play.item : by > 0 ? -1 : items.length;
  const item = by > 0 ? (there.find((i) => i > now) ?? there[0]) : (there.findLast((i) => i < now) ?? there.at(-1));
  if (item === undefined) return null;
  return { source, id, since, loop, item, at, until: isShow ? Infinity : at + (program.stepRestMs ?? 0) };
}

/** A forecast with what was stepped to in place of the plays that it is seen over. */
export function withStep<F extends Pick<Forecast, 'segments'> & { readonly plays: readonly Play[] }>(
  program: ScreenProgram,
  forecast: F,
  stepped: Stepped,
): F {
  const item = program.loops[stepped.loop]?.[stepped.item];
  if (!item) return forecast;
  const { loop, at } = stepped;
  const times = forecast.segments.flatMap((segment) => {
    const [from, to] = [Math.max(segment.from, at), Math.min(segment.to, stepped.until)];
    return isOf(stepped, segment) && from < to ? [{ from, to }] : [];
  });
  if (times.length === 0) return forecast;
  const plays = times.reduce<readonly Play[]>(
    (all, { from, to }) => all.flatMap((play) => without(play, from, to)),
    forecast.plays,
  );
  const turn = { ...drawnOnly(item), start: at, loop, item: stepped.item, fromMs: item.fromMs ?? 0, weave: null };
  const own = times.map(({ from, to }): Play => ({ ...turn, from, to }));
  return { ...forecast, plays: [...plays, ...own].sort((a, b) => a.from - b.from) };
}

/** Whether what was stepped to is seen at an instant in a segment. */
export const holds = (stepped: Stepped, segment: Segment, at: Instant): boolean =>
  isOf(stepped, segment) && stepped.at <= at && at < stepped.until;

const isOf = (one: Stepped, { source, id, since, loop }: Segment) =>
  one.source === source && one.id === id && one.since === since && one.loop === loop;

/** What is left of a play before and after a time. */
function without(play: Play, from: Instant, to: Instant): readonly Play[] {
  if (play.to <= from || to <= play.from) return [play];
  return [...(play.from < from ? [{ ...play, to: from }] : []), ...(to < play.to ? [{ ...play, from: to }] : [])];
}
