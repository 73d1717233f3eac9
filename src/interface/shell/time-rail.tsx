'use client';

import { scaleTime } from 'd3-scale';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { HOUR, MINUTE } from '@/core/instant';
import { zoneTable } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { usePlanned } from '@/interface/data/planned';
import { useNetwork } from '@/interface/data/provider';
import { stepsOf } from '@/interface/data/reaching';
import { useZone } from '@/interface/data/zone';
import { clockTime, counted, dateTime, dayName, siteTimeWords } from '@/interface/kit/words/format';
import { tickHours } from '@/interface/kit/words/ticks';
import { useWidth } from '@/interface/kit/page/use-width';
import type { Planned } from '@/services/editions';
import { MomentClock } from './moment-clock';

/** How much time the rail shows. */
const SPAN = 18 * HOUR;
/** So much room the word beside a mark takes, in pixels. */
const LABEL_WIDTH = 64;
/** The width of a letter of an hour's label, and half of the mark of the moment, in pixels. */
const LETTER = 8;
const MARK = 8;

/** The ruler at the foot of the window: moves the moment by dragging, by keys, and from change to change. */
export function TimeRail() {
  const { moment, isNow, now, go, changes, step, selected, edition, lookAtEdition } = useMoment();
  const { looking, look, published } = useNetwork('looking', 'look', 'published');
  const zone = useZone();
  const track = useRef<HTMLDivElement>(null);
  const width = useWidth(track, 900);
  /** The ruler doesn't move during a drag. */
  const [held, setHeld] = useState<number | null>(null);
  const start = held ?? Math.floor((moment - SPAN / 3) / (10 * MINUTE)) * 10 * MINUTE;
  const scale = useMemo(() => scaleTime([start, start + SPAN], [0, width]), [start, width]);
  const shown = changes.filter(({ at }) => at >= start && at < start + SPAN);
  const most = Math.max(1, ...shown.map((one) => one.screens));
  const ticks = hoursOf(start, start + SPAN, zone, tickHours(width, SPAN / HOUR));
  const planned = usePlanned();
  const steps = useMemo(() => stepsOf(planned), [planned]);
  const marks = steps.filter(({ at }) => at >= start && at < start + SPAN);
  const timed = planned.flatMap((one) => (one.at === null ? [] : [{ ...one, at: Date.parse(one.at) }]));
  const ahead = moment < now || edition !== null ? undefined : timed.findLast(({ at }) => at <= moment);
  const clockChanges = clockChangesIn(zone, start, start + SPAN);

  const labelEnd = (at: number) => scale(at) + tickLabel(at, zone).length * LETTER + 4;
  /** Whether a tick's label fits between the label before it, which may be a long day, the moment's mark, and the rail's end. */
  const hasRoom = (at: number, before: number | undefined) => {
    const [left, right, mark] = [scale(at), labelEnd(at), scale(moment)];
    if (before !== undefined && labelEnd(before) > left) return false;
    return right <= width && (right < mark - MARK || left > mark + MARK);
  };

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
    <footer className="flex shrink-0 flex-wrap items-stretch border-t border-rule bg-sheet sm:h-20 sm:flex-nowrap [@media(max-height:500px)]:h-14">
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
        className="relative order-first h-11 w-full min-w-0 cursor-ew-resize touch-none select-none overflow-hidden max-sm:border-b max-sm:border-rule sm:order-none sm:h-auto sm:w-auto sm:flex-1"
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
        {ticks.map((at, i) => (
          <div key={at} className="absolute top-0 h-full border-l border-rule" style={{ left: scale(at) }}>
            {hasRoom(at, ticks[i - 1]) && (
              <span className="absolute left-1 top-0.5 whitespace-nowrap font-code text-[11px] text-faint">
                {tickLabel(at, zone)}
              </span>
            )}
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
        {marks.map(({ id, at, screens }, i) => (
          <div
            key={`${id} ${at}`}
            title={`${dateTime(at, zone)}: ${stepWords(planned, id, screens?.size)}`}
            className="absolute top-0 h-full border-l-2 border-dashed border-dusk"
            style={{ left: scale(at) }}
          >
            {
              // One word for those that stand close together, as sites an hour apart do.
              marks.slice(i + 1, i + 2).every((next) => scale(next.at) - scale(at) >= LABEL_WIDTH) && (
                <span className="absolute top-5 left-1 bg-sheet px-1 text-[11px] whitespace-nowrap text-dusk">
                  {screens && planned.find((one) => one.id === id)?.pilot ? 'tried' : 'planned'}
                </span>
              )
            }
          </div>
        ))}
        <div className="absolute top-0 h-full w-px bg-lamp" style={{ left: scale(now) }} />
        <div className="absolute top-0 h-full" style={{ left: scale(moment) }}>
          <div
            className={`absolute top-4 h-[calc(100%-1rem)] w-[3px] -translate-x-1/2 ${isNow ? 'bg-lamp' : 'bg-dusk'}`}
          />
          <div className={`absolute top-3 size-3 -translate-x-1/2 rotate-45 ${isNow ? 'bg-lamp' : 'bg-dusk'}`} />
        </div>
      </div>
      <div className="flex shrink-0 items-center gap-1 border-l border-rule px-2 py-1 lg:px-4">
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
          <label className="ml-1 flex flex-col text-xs text-faint lg:ml-3">
            <span className="max-lg:sr-only">Looking at</span>
            <select
              value={looking === 'draft' ? looking : edition !== null ? 'edition' : (ahead?.id ?? looking)}
              onChange={({ target: { value } }) => {
                void lookAtEdition(null);
                const wanted = timed.find(({ id }) => id === value);
                look(value === 'draft' ? value : 'published');
                // What is planned is looked at when it is out; what is on the glass, now.
                if (wanted) go(wanted.at);
                else if (value === 'published' && (ahead || edition !== null)) go(null);
              }}
              className="border border-rule bg-paper px-1 py-0.5 text-sm text-ink max-sm:w-24"
            >
              <option value="published">on the screens</option>
              <option value="draft">with my changes</option>
              {edition !== null && <option value="edition">edition {edition}</option>}
              {timed.map(({ id, at, siteTime }) => (
                <option key={id} value={id}>
                  planned, {siteTime === null ? dateTime(at, zone) : `${siteTimeWords(siteTime)} at each site`}
                </option>
              ))}
            </select>
          </label>
        )}
        {selected.size > 0 && <span className="sr-only">Changes of {counted(selected.size, 'selected screen')}</span>}
      </div>
    </footer>
  );
}

/** What happens at a mark: on how many screens, where it is not on all. */
function stepWords(planned: readonly Planned[], id: string, screens: number | undefined): string {
  if (screens === undefined) return 'a planned edition goes out';
  return planned.find((one) => one.id === id)?.pilot
    ? `${counted(screens, 'screen')} got what is tried first`
    : `a planned edition goes out on ${counted(screens, 'screen')}`;
}

/** The changes of a zone's clocks in a range, and by how much they go forward (or back). */
function clockChangesIn(zone: string, from: number, to: number): { at: number; by: number }[] {
  const { changes, offsets } = zoneTable(zone);
  return changes.flatMap((at, i) =>
    at >= from && at < to ? [{ at, by: (offsets[i + 1] ?? 0) - (offsets[i] ?? 0) }] : [],
  );
}

/** The hours of a zone's clock in a range, every `apart`-th of the day. */
function hoursOf(from: number, to: number, zone: string, apart: number): number[] {
  const first = Math.ceil(from / (HOUR / 2)) * (HOUR / 2);
  const halves = Array.from({ length: Math.ceil((to - first) / (HOUR / 2)) }, (_, i) => first + (i * HOUR) / 2);
  return halves.filter((at) => {
    const [hours, minutes] = clockTime(at, zone).split(':').map(Number);
    return minutes === 0 && (hours ?? 0) % apart === 0;
  });
}

/** The hour; at midnight, the day. */
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
      className={`h-8 min-w-8 border px-1 font-code text-sm sm:h-9 sm:min-w-9 sm:px-2 ${pressed ? 'border-lamp' : 'border-rule hover:border-ink'}`}
    >
      {children}
    </button>
  );
}
