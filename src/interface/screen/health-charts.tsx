'use client';

import { useRef } from 'react';
import { extent } from 'd3-array';
import { scaleLinear, scaleTime } from 'd3-scale';
import { MEASURES, type Measure, type Sample } from '@/core/health';
import { DAY, MINUTE, type Instant } from '@/core/instant';
import { useWidth } from '@/interface/kit/page/use-width';
import { megabytes } from '@/interface/kit/words/format';

const HEIGHT = 40;
/** Two samples that are farther apart are not joined: in between nothing was heard. */
const GAP_MS = 12 * MINUTE;

const percent = (share: number) => `${Math.round(share * 100)} %`;

/** What each measure is called, how its values are written, and between which values its chart lies at least. */
const SHOWN: Readonly<
  Record<
    Measure,
    { readonly name: string; readonly words: (value: number) => string; readonly atLeast: readonly [number, number] }
  >
> = {
  temperature: { name: 'Temperature', words: (value) => `${Math.round(value)} °C`, atLeast: [20, 60] },
  memory: { name: 'Memory used', words: percent, atLeast: [0, 1] },
  load: { name: 'Load', words: (value) => value.toFixed(2), atLeast: [0, 1] },
  storage: { name: 'Storage used', words: percent, atLeast: [0, 1] },
  clock: {
    name: 'Clock, off by',
    words: (value) => (Math.abs(value) < 1000 ? `${Math.round(value)} ms` : `${Math.round(value / 1000)} s`),
    atLeast: [-1000, 1000],
  },
  line: { name: 'Last download', words: (value) => `${megabytes(value)}/s`, atLeast: [0, 1e6] },
};

/** What a screen's player measured over the last day: a small chart for each measure that it has. */
export function HealthCharts({ samples, now }: { samples: readonly Sample[]; now: Instant }) {
  const measured = MEASURES.filter((measure) => samples.some((sample) => sample[measure] !== undefined));
  if (measured.length === 0)
    return <p className="text-sm text-faint">No measurements yet. The player sends them every five minutes.</p>;
  return (
    <ul className="grid grid-cols-2 gap-x-6 gap-y-3 lg:grid-cols-3">
      {measured.map((measure) => (
        <li key={measure}>
          <Chart measure={measure} samples={samples} now={now} />
        </li>
      ))}
    </ul>
  );
}

function Chart({ measure, samples, now }: { measure: Measure; samples: readonly Sample[]; now: Instant }) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 200);
  const { name, words, atLeast } = SHOWN[measure];
  const points = samples.flatMap((sample) => {
    const value = sample[measure];
    return value === undefined ? [] : [{ at: sample.at, value }];
  });
  const [least = 0, most = 0] = extent(points, ({ value }) => value);
  const x = scaleTime()
    .domain([now - DAY, now])
    .range([0, width]);
  const y = scaleLinear()
    .domain([Math.min(least, atLeast[0]), Math.max(most, atLeast[1])])
    .range([HEIGHT - 1, 1]);
  const path = points
    .map(({ at, value }, i) => {
      const isJoined = i > 0 && at - (points[i - 1]?.at ?? 0) <= GAP_MS;
      return `${isJoined ? 'L' : 'M'}${x(at).toFixed(1)} ${y(value).toFixed(1)}`;
    })
    .join('');
  const last = points.at(-1);
  const range = least === most ? '' : `, from ${words(least)} to ${words(most)} in the last day`;
  return (
    <div ref={box}>
      <p className="flex items-baseline justify-between gap-2 text-sm">
        {name} <span className="font-code text-xs">{last && words(last.value)}</span>
      </p>
      <svg
        role="img"
        aria-label={`${name}: ${last ? words(last.value) : ''}${range}`}
        width={width}
        height={HEIGHT}
        className="block"
      >
        <line x1={0} x2={width} y1={HEIGHT - 0.5} y2={HEIGHT - 0.5} className="stroke-rule" />
        <path d={path} className="fill-none stroke-tide" strokeWidth={1.5} strokeLinecap="round" />
        {last && <circle cx={x(last.at)} cy={y(last.value)} r={2.5} className="fill-tide" />}
      </svg>
      <p className="text-xs text-faint">{least === most ? 'unchanged' : `${words(least)} to ${words(most)}`}</p>
    </div>
  );
}
