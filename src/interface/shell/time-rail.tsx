'use client';

import { scaleTime } from 'd3-scale';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { HOUR, MINUTE, zoneTable } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { clockTime, counted, dateTime, dayName } from '@/interface/kit/format';
import { useWidth } from '@/interface/kit/use-width';
import { MomentClock } from './moment-clock';

/** How much time the rail shows. */
const SPAN = 18 * HOUR;

/** The ruler at the foot of the window: moves the moment by dragging, by keys, and from change to change. */
export function TimeRail() {
  const { moment, isNow, now, go, changes, step, selected } = useMoment();
  const { looking, look, published, docket } = useNetwork('looking', 'look', 'published', 'docket');
  const zone = useZone();
  const track = useRef<HTMLDivElement>(null);
  const width = useWidth(track, 900);
  /** While one drags, the ruler stands still. */
  const [held, setHeld] = useState<number | null>(null);
  const start = held ?? Math.floor((moment - SPAN / 3) / (10 * MINUTE)) * 10 * MINUTE;
  const scale = useMemo(() => scaleTime([start, start + SPAN], [0, width]), [start, width]);
  const shown = changes.filter(({ at }) => at >= start && at < start + SPAN);
  const most = Math.max(1, ...shown.map((one) => one.screens));
  const ticks = hoursOf(start, start + SPAN, zone);
  const clockChanges = clockChangesIn(zone, start, start + SPAN);

  const instantAt = (event: PointerEvent) => {
    const box = track.current?.getBoundingClientRect();
    const at = Number(scale.invert(event.clientX - (box?.left ?? 0)));
    const near = shown.find((one) => Math.abs(scale(one.at) - scale(at)) < 5);
    return near ? near.at : Math.round(at / MINUTE) * MINUTE;
  };
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -MINUTE, ArrowRight: MINUTE, PageDown: -HOUR, PageUp: HOUR }[event.key];
    if (by !== undefined) go(Math.round(moment / MINUTE) * MINUTE + by * (event.shiftKey ? 10 : 1));
    else if (event.key === 'Home') go(null);
    else return;
    event.preventDefault();
  };

  return (
    <footer className="flex h-20 shrink-0 items-stretch border-t border-rule bg-sheet">
      <MomentClock />
      <div
        ref={track}
        role="slider"
        tabIndex={0}
        aria-label="Moment"
        aria-valuemin={start}
        aria-valuemax={start + SPAN}
        aria-valuenow={Math.round(moment)}
        aria-valuetext={`${dateTime(moment, zone)} ${zone}`}
        className="relative min-w-0 flex-1 cursor-ew-resize touch-none select-none overflow-hidden"
        onKeyDown={onKey}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setHeld(start);
          go(instantAt(event));
        }}
        onPointerMove={(event) => held !== null && go(instantAt(event))}
        onPointerUp={() => setHeld(null)}
        onPointerCancel={() => setHeld(null)}
      >
        {ticks.map((at) => (
          <div key={at} className="absolute top-0 h-full border-l border-rule" style={{ left: scale(at) }}>
            <span className="absolute left-1 top-0.5 whitespace-nowrap font-code text-[11px] text-faint">
              {tickLabel(at, zone)}
            </span>
          </div>
        ))}
        {clockChanges.map(({ at, by }) => (
          <div key={at} className="absolute top-0 z-10 h-full border-l-2 border-brick" style={{ left: scale(at) }}>
            <span className="absolute top-5 left-1 bg-sheet whitespace-nowrap px-1 text-[11px] text-brick">
              your clocks {by > 0 ? '+' : '−'}
              {Math.abs(by) / HOUR} h
            </span>
          </div>
        ))}
        {shown.map(({ at, screens, takeover }) => (
          <div
            key={at}
            title={`${clockTime(at, zone)}: ${counted(screens, 'screen')} change`}
            className={`absolute bottom-0 w-[3px] -translate-x-1/2 ${takeover ? 'bg-brick' : at < now ? 'bg-faint' : 'bg-tide'}`}
            style={{ left: scale(at), height: 8 + (screens / most) * 34 }}
          />
        ))}
        <div className="absolute top-0 h-full w-px bg-lamp" style={{ left: scale(now) }} />
        <div className="absolute top-0 h-full" style={{ left: scale(moment) }}>
          <div
            className={`absolute top-4 h-[calc(100%-1rem)] w-[3px] -translate-x-1/2 ${isNow ? 'bg-lamp' : 'bg-dusk'}`}
          />
          <div className={`absolute top-3 size-3 -translate-x-1/2 rotate-45 ${isNow ? 'bg-lamp' : 'bg-dusk'}`} />
        </div>
      </div>
      <div className="flex shrink-0 items-center gap-1 border-l border-rule px-4">
        <RailButton label="Change before" onClick={() => step(-1)}>
          [
        </RailButton>
        <RailButton label="Back to now" onClick={() => go(null)} pressed={isNow}>
          now
        </RailButton>
        <RailButton label="Change after" onClick={() => step(1)}>
          ]
        </RailButton>
        {published && (
          <label className="ml-3 flex flex-col text-xs text-faint">
            Looking at
            <select
              value={looking}
              onChange={(event) => look(event.target.value as 'published' | 'draft')}
              className="border border-rule bg-paper px-1 py-0.5 text-sm text-ink"
            >
              <option value="published">edition {published.number}</option>
              <option value="draft">{docket.entries > 0 ? 'with the docket' : 'the draft'}</option>
            </select>
          </label>
        )}
        {selected.size > 0 && <span className="sr-only">Changes of {counted(selected.size, 'selected screen')}</span>}
      </div>
    </footer>
  );
}

/** The changes of a zone's clocks in a range, and by how much they go forward (or back). */
function clockChangesIn(zone: string, from: number, to: number): { at: number; by: number }[] {
  const { changes, offsets } = zoneTable(zone);
  return changes.flatMap((at, i) =>
    at >= from && at < to ? [{ at, by: (offsets[i + 1] ?? 0) - (offsets[i] ?? 0) }] : [],
  );
}

const TICK_HOURS = 2;

/** The even hours of a zone's clock in a range. */
function hoursOf(from: number, to: number, zone: string): number[] {
  const first = Math.ceil(from / (HOUR / 2)) * (HOUR / 2);
  const halves = Array.from({ length: Math.ceil((to - first) / (HOUR / 2)) }, (_, i) => first + (i * HOUR) / 2);
  return halves.filter((at) => {
    const [hours, minutes] = clockTime(at, zone).split(':').map(Number);
    return minutes === 0 && (hours ?? 0) % TICK_HOURS === 0;
  });
}

/** The hour, or the day where one begins. */
function tickLabel(at: number, zone: string): string {
  const time = clockTime(at, zone);
  return time === '00:00' ? dayName(at, zone) : time;
}

function RailButton({
  label,
  pressed,
  onClick,
  children,
}: {
  label: string;
  pressed?: boolean;
  onClick: () => void;
  children: string;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={pressed}
      onClick={onClick}
      className={`h-9 min-w-9 border px-2 font-code text-sm ${pressed ? 'border-lamp' : 'border-rule hover:border-ink'}`}
    >
      {children}
    </button>
  );
}
