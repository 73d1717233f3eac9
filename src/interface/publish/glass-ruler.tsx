'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { DAY, HOUR, MINUTE } from '@/core/instant';
import { toInstant, toLocalTime, zoneTable, type LocalTime } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { useZone } from '@/interface/data/zone';
import { clockTime, dateTime, dayName } from '@/interface/kit/words/format';
import { tickHours } from '@/interface/kit/words/ticks';
import { useWidth } from '@/interface/kit/page/use-width';

/** Where an instant lies in a range, 0 to 1. */
export const shareOf = (at: number, [from, to]: readonly [number, number]) => (at - from) / (to - from);

/** The instant that is looked at, if it is in a range; else its beginning. */
export function useCursor([from, to]: readonly [number, number]): number {
  const { moment } = useMoment();
  return moment >= from && moment < to ? moment : from;
}

/**
 * The hours or days over the ribbons. A press, or the arrow keys, choose the moment that all pictures show; Page Up and
 * Page Down go to where something changes.
 */
export function GlassRuler({ range, edges }: { range: readonly [number, number]; edges: readonly number[] }) {
  const [from, to] = range;
  const { go } = useMoment();
  const zone = useZone();
  const cursor = useCursor(range);
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 700);
  const hours = tickHours(width, (to - from) / HOUR);
  const within = (at: number) => Math.min(to - MINUTE, Math.max(from, at));
  const press = (event: PointerEvent) => {
    const place = box.current?.getBoundingClientRect();
    if (event.buttons !== 1 || !place) return;
    const at = from + ((event.clientX - place.left) / place.width) * (to - from);
    go(within(Math.round(at / MINUTE) * MINUTE));
  };
  const step = to - from > 2 * DAY ? HOUR : 15 * MINUTE;
  const keys: Readonly<Record<string, () => number | undefined>> = {
    ArrowLeft: () => cursor - step,
    ArrowRight: () => cursor + step,
    Home: () => from,
    End: () => to,
    PageUp: () => edges.findLast((edge) => edge < cursor),
    PageDown: () => edges.find((edge) => edge > cursor),
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const at = keys[event.key]?.();
    if (!(event.key in keys)) return;
    event.preventDefault();
    if (at !== undefined) go(within(at));
  };
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label="Moment of the comparison"
      aria-valuemin={from}
      aria-valuemax={to}
      aria-valuenow={cursor}
      aria-valuetext={dateTime(cursor, zone)}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        press(event);
      }}
      onPointerMove={press}
      onKeyDown={onKeyDown}
      className="relative ml-12 h-9 cursor-ew-resize touch-none select-none overflow-hidden"
    >
      {ticks(range, hours, zone).map((at) => (
        <span
          key={at}
          aria-hidden
          className="absolute top-0 h-full whitespace-nowrap border-l border-rule pl-1 font-code text-[11px] text-faint"
          style={{ left: `${100 * shareOf(at, range)}%` }}
        >
          {hours === 24
            ? dayName(at, zone)
            : isMidnight(at, zone)
              ? dayName(at, zone).slice(0, 6)
              : clockTime(at, zone)}
        </span>
      ))}
      <span
        aria-hidden
        className="absolute bottom-0 -translate-x-1/2 bg-lamp px-1 font-code text-[11px] text-[#1b2230]"
        style={{ left: `clamp(2.5rem, ${100 * shareOf(cursor, range)}%, calc(100% - 2.5rem))` }}
      >
        {to - from > DAY ? `${dayName(cursor, zone).slice(0, 3)} ` : ''}
        {clockTime(cursor, zone, false)}
      </span>
    </div>
  );
}

const isMidnight = (at: number, zone: string) => toLocalTime(zoneTable(zone), at) % DAY === 0;

/** Instants so many hours apart on a clock, from midnight on: at most a label has room for each. */
function ticks([from, to]: readonly [number, number], hours: number, zone: string): number[] {
  const table = zoneTable(zone);
  const step = hours * HOUR;
  const found = new Set<number>();
  for (let local = Math.ceil(toLocalTime(table, from) / step) * step; ; local += step) {
    const at = toInstant(table, local as LocalTime);
    if (at >= to) return [...found];
    if (at >= from) found.add(at);
  }
}
