'use client';

import { useRef } from 'react';
import { scaleTime } from 'd3-scale';
import type { Segment } from '@/core/forecast';
import { addDays, dateOfLocalTime, startOfDate, toInstant, toLocalTime, zoneTable } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { indexOf } from '@/interface/data/provider';
import { useFirings } from '@/interface/data/queries';
import { ask, useAnswer } from '@/interface/forecast/client';
import { useWidth } from '@/interface/kit/page/use-width';
import { clockTime } from '@/interface/kit/words/format';
import { sourceName } from '@/interface/now/street';
import { Hours } from './state-band';

const HEIGHT = 34;
/** A name is written where it has room: so many pixels a character. */
const PIXELS_A_CHARACTER = 7;

const FILLS: Readonly<Record<string, string>> = {
  takeover: 'fill-brick',
  booking: 'fill-dusk',
  backdrop: 'fill-well',
  'lights-out': 'fill-glass',
  nothing: 'fill-none',
};
const WORDS: Readonly<Record<string, string>> = {
  takeover: 'fill-on-brick',
  booking: 'fill-on-dusk',
  backdrop: 'fill-ink',
  'lights-out': 'fill-on-glass',
  nothing: 'fill-faint',
};

/** What the forecast says of a screen's day, midnight to midnight on its site's clock, with the moment that is looked at. */
export function DayBand({ screen, zone }: { screen: string; zone: string }) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 640);
  const { moment, shownOf } = useMoment();
  const { plan } = shownOf(screen);
  const table = zoneTable(zone);
  const date = dateOfLocalTime(toLocalTime(table, moment));
  const [from, to] = [date, addDays(date, 1)].map((day) => toInstant(table, startOfDate(day))) as [number, number];
  const index = indexOf(plan.plan);
  const firings = useFirings();
  const segments = useAnswer<readonly Segment[]>(
    async () => (index.screens.has(screen) ? ask(plan, { kind: 'segments', screen, from, to, firings }) : []),
    [plan.key, screen, from, firings],
    [],
  );
  const x = scaleTime().domain([from, to]).range([0, width]);
  const at = (instant: number) => Math.min(width, Math.max(0, x(instant)));
  const words = segments.map((one) => `${clockTime(one.from, zone, false)} ${sourceName(one, index)}`).join(', ');
  return (
    <div ref={box} className="mb-3">
      <svg
        role="img"
        aria-label={words || 'The day is being worked out'}
        width={width}
        height={HEIGHT + 16}
        className="block overflow-visible"
      >
        {segments.map((segment) => {
          const [left, right] = [at(segment.from), at(segment.to)];
          const name = sourceName(segment, index);
          return (
            <g key={segment.from}>
              <rect
                x={left}
                width={Math.max(1, right - left - 1)}
                height={HEIGHT}
                className={`${FILLS[segment.source] ?? ''} stroke-rule`}
              >
                <title>
                  {name}, {clockTime(segment.from, zone, false)} to {clockTime(segment.to, zone, false)}
                </title>
              </rect>
              {right - left > name.length * PIXELS_A_CHARACTER + 10 && (
                <text x={left + 6} y={HEIGHT / 2 + 4} className={`${WORDS[segment.source] ?? ''} text-xs`}>
                  {name}
                </text>
              )}
            </g>
          );
        })}
        <line x1={at(moment)} x2={at(moment)} y1={0} y2={HEIGHT} className="stroke-lamp" strokeWidth={2} />
        <Hours x={(one) => x(one)} from={from} now={to} zone={zone} y={HEIGHT + 12} />
      </svg>
    </div>
  );
}
