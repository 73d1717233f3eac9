'use client';

import { useRef } from 'react';
import { scaleLinear, scaleSymlog } from 'd3-scale';
import type { Instant } from '@/core/instant';
import { useMoment } from '@/interface/data/moment';
import { useWidth } from '@/interface/kit/page/use-width';
import type { Arrival } from '@/services/editions';
import { MARKS, arrivalWords, stepsOf, type ArrivalStep } from './arrival';

const HEIGHT = 72;
const FOOT = 18;
/** Room beside the last mark, for its words. */
const SIDE = 34;

/** How an edition arrived: how many screens had taken it up how long after it went out, on a ruler of ever longer spans; and in words. */
export function ArrivalCurve({
  arrivals,
  out,
}: {
  arrivals: readonly Arrival[];
  /** When it went out. */
  out: Instant;
}) {
  const { now } = useMoment();
  const steps = stepsOf(arrivals, out);
  const words = arrivalWords(steps, arrivals.length);
  return (
    <>
      <p className="mt-2">{words}</p>
      {arrivals.length > 1 && steps.length > 0 && (
        <Curve
          steps={steps}
          of={arrivals.length}
          end={steps.length === arrivals.length ? 0 : now - out}
          words={words}
        />
      )}
    </>
  );
}

function Curve({ steps, of, end, words }: { steps: readonly ArrivalStep[]; of: number; end: number; words: string }) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 640);
  const to = Math.max(10_000, (steps.at(-1)?.at ?? 0) * 1.2, end);
  const x = scaleSymlog()
    .constant(1000)
    .domain([0, to])
    .range([0, width - SIDE]);
  const y = scaleLinear().domain([0, of]).range([HEIGHT, 2]);
  const line = steps.map(({ at, count }) => `H${x(at).toFixed(1)}V${y(count).toFixed(1)}`).join('');
  const last = x(end > 0 ? to : (steps.at(-1)?.at ?? 0));
  return (
    <div ref={box} className="mt-2">
      <svg role="img" aria-label={words} width={width} height={HEIGHT + FOOT} className="block overflow-visible">
        <line x1={0} x2={width - SIDE} y1={y(of)} y2={y(of)} className="stroke-rule" strokeDasharray="2 3" />
        <text x={width - SIDE + 6} y={y(of) + 8} className="fill-faint font-code text-[10px]">
          {of}
        </text>
        {MARKS.filter(([at]) => at <= to).map(([at, text]) => (
          <g key={at} transform={`translate(${x(at)} 0)`}>
            <line y1={0} y2={HEIGHT} className="stroke-rule" />
            <text y={HEIGHT + 13} textAnchor="middle" className="fill-faint font-code text-[10px]">
              {text}
            </text>
          </g>
        ))}
        <path d={`M0 ${HEIGHT}${line}H${last}V${HEIGHT}Z`} className="fill-lamp opacity-30" />
        <path d={`M0 ${HEIGHT}${line}H${last}`} className="fill-none stroke-lamp" strokeWidth={2} />
        <line x1={0} x2={width - SIDE} y1={HEIGHT} y2={HEIGHT} className="stroke-ink" />
      </svg>
    </div>
  );
}
