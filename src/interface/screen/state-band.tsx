'use client';

import { useRef } from 'react';
import { scaleTime } from 'd3-scale';
import { stateSpans, timeIn, type Since, type State } from '@/core/health';
import { DAY, type Instant } from '@/core/instant';
import { STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { useWidth } from '@/interface/kit/page/use-width';
import { clockTime, spell } from '@/interface/kit/words/format';

const HEIGHT = 26;

/** Each state has a height of its own, so it can be read without colours. */
const LOOKS: Readonly<Record<State, { readonly height: number; readonly fill: string }>> = {
  lit: { height: 1, fill: 'fill-lamp' },
  behind: { height: 0.65, fill: 'fill-tide' },
  resting: { height: 0.3, fill: 'fill-faint' },
  dark: { height: 1, fill: 'fill-glass stroke-rule' },
  unpaired: { height: 0.1, fill: 'fill-rule' },
};

/** A screen's state over the last day, as a band and in words. */
export function StateBand({ changes, now, zone }: { changes: readonly Since[]; now: Instant; zone: string }) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 640);
  const from = now - DAY;
  const spans = stateSpans(changes, from, now);
  const times = [...timeIn(spans)].sort((a, b) => b[1] - a[1]);
  const words = times.map(([state, ms]) => `${STATE_WORDS[state]} ${spell(ms)}`).join(', ');
  const x = scaleTime().domain([from, now]).range([0, width]);
  return (
    <div ref={box}>
      <svg
        role="img"
        aria-label={words || 'Nothing is known yet'}
        width={width}
        height={HEIGHT + 16}
        className="block overflow-visible"
      >
        {spans.map(({ from: begins, to, state }) => {
          const look = state && LOOKS[state];
          const height = look ? HEIGHT * look.height : 0;
          return (
            <rect
              key={begins}
              x={x(begins)}
              y={HEIGHT - height}
              width={Math.max(1, x(to) - x(begins))}
              height={height}
              className={look?.fill}
            >
              <title>
                {state ? STATE_WORDS[state] : 'not known'}, {clockTime(begins, zone, false)} to{' '}
                {clockTime(to, zone, false)}
              </title>
            </rect>
          );
        })}
        <line x1={0} x2={width} y1={HEIGHT} y2={HEIGHT} className="stroke-rule" />
        <Hours {...{ x, from, now, zone }} y={HEIGHT + 12} />
      </svg>
      <ul className="flex flex-wrap gap-x-4 text-sm">
        {times.map(([state, ms]) => (
          <li key={state} className="flex items-center gap-1.5">
            <svg width={10} height={14} aria-hidden>
              <rect
                y={14 - 14 * LOOKS[state].height}
                width={10}
                height={14 * LOOKS[state].height}
                className={LOOKS[state].fill}
              />
            </svg>
            {STATE_WORDS[state]} <span className="text-faint">{spell(ms)}</span>
          </li>
        ))}
        {times.length === 0 && (
          <li className="text-faint">Nothing is known yet. The first entry comes within a minute.</li>
        )}
      </ul>
    </div>
  );
}

const EVERY_HOURS = 4;

/** The full hours under a chart of a day, on the site's clock. */
export function Hours({
  x,
  from,
  now,
  zone,
  y,
}: {
  x: (at: Date | number) => number;
  from: Instant;
  now: Instant;
  zone: string;
  y: number;
}) {
  const first = Math.ceil(from / 3_600_000) * 3_600_000;
  const marks = Array.from({ length: 25 }, (_, i) => first + i * 3_600_000).filter(
    (at) => at < now && Number(clockTime(at, zone, false).slice(0, 2)) % EVERY_HOURS === 0,
  );
  return marks.map((at) => (
    <text key={at} x={x(at)} y={y} textAnchor="middle" className="fill-faint font-code text-[10px]">
      {clockTime(at, zone, false)}
    </text>
  ));
}
