'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { WEEKDAYS } from '@/core/when';
import { SLOTS, clockOf, painted, type Week } from './week';

type Place = readonly [day: number, slot: number];

/** Something that is being painted: from where to where, and whether it turns the display off. */
interface Stroke {
  readonly from: Place;
  readonly to: Place;
  readonly off: boolean;
}

const NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
/** Hours that are written above the grid. */
const MARKS = [0, 6, 12, 18];

/**
 * A week of half hours, painted by dragging: what is dark is off. By keys: arrows move, Space paints a half hour, and with Shift the arrows
 * paint on. The first half hour says whether all of the stroke is on or off.
 */
export function WeekGrid({ week, onPaint }: { week: Week; onPaint: (week: Week) => void }) {
  const grid = useRef<HTMLDivElement>(null);
  const [stroke, setStroke] = useState<Stroke | null>(null);
  const [[day, slot], setPlace] = useState<Place>([0, 0]);
  const shown = stroke ? painted(week, stroke.from, stroke.to, stroke.off) : week;
  const isOff = ([d, s]: Place) => week[d]?.[s] ?? false;

  const placeAt = ({ clientX, clientY }: PointerEvent): Place | null => {
    const cell = document.elementFromPoint(clientX, clientY)?.closest<HTMLElement>('[data-slot]');
    return cell && grid.current?.contains(cell) ? [Number(cell.dataset.day), Number(cell.dataset.slot)] : null;
  };
  const cellAt = ([d, s]: Place) => grid.current?.querySelector<HTMLElement>(`[data-day="${d}"][data-slot="${s}"]`);
  const begin = (event: PointerEvent) => {
    const place = placeAt(event);
    if (!place || event.button !== 0) return;
    event.preventDefault();
    grid.current?.setPointerCapture(event.pointerId);
    setPlace(place);
    cellAt(place)?.focus();
    setStroke({ from: place, to: place, off: !isOff(place) });
  };
  const move = (event: PointerEvent) => {
    const place = stroke && placeAt(event);
    if (place) setStroke({ ...stroke, to: place });
  };
  const end = () => {
    if (stroke) onPaint(painted(week, stroke.from, stroke.to, stroke.off));
    setStroke(null);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const to = STEPS[event.key]?.([day, slot]);
    if (event.key === ' ') onPaint(painted(week, [day, slot], [day, slot], !isOff([day, slot])));
    else if (to && event.shiftKey) onPaint(painted(week, [day, slot], to, isOff([day, slot])));
    else if (!to) return;
    event.preventDefault();
    if (!to) return;
    setPlace(to);
    cellAt(to)?.focus();
  };

  return (
    <div
      ref={grid}
      role="grid"
      tabIndex={-1}
      aria-label="Lights out in the week"
      aria-multiselectable
      className="touch-none select-none"
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={() => setStroke(null)}
      onKeyDown={onKeyDown}
      // The form saves when a field is left: the grid is one field.
      onBlur={(event) => {
        if (grid.current?.contains(event.relatedTarget)) event.stopPropagation();
      }}
    >
      <div aria-hidden className="ml-9 grid grid-cols-4 font-code text-[10px] text-faint">
        {MARKS.map((hour) => (
          <span key={hour}>{clockOf(hour * 2)}</span>
        ))}
      </div>
      {WEEKDAYS.map((weekday, d) => (
        <div key={weekday} role="row" className="flex">
          <span role="rowheader" className="w-9 shrink-0 text-xs leading-6 text-faint">
            {NAMES[d]}
          </span>
          {Array.from({ length: SLOTS }, (_, s) => {
            const off = shown[d]?.[s] ?? false;
            return (
              <span
                key={s}
                role="gridcell"
                data-day={d}
                data-slot={s}
                tabIndex={d === day && s === slot ? 0 : -1}
                aria-selected={off}
                aria-label={`${NAMES[d]} ${clockOf(s)}, ${off ? 'off' : 'on'}`}
                className={`h-6 min-w-0 flex-1 border-y border-paper focus:outline-2 focus:-outline-offset-2 focus:outline-tide ${s % 2 === 0 ? 'border-l' : ''} ${off ? 'bg-glass' : 'bg-lamp/60'}`}
              />
            );
          })}
        </div>
      ))}
    </div>
  );
}

const within = (at: number, count: number) => Math.min(count - 1, Math.max(0, at));
const STEPS: Readonly<Record<string, (place: Place) => Place>> = {
  ArrowLeft: ([d, s]) => [d, within(s - 1, SLOTS)],
  ArrowRight: ([d, s]) => [d, within(s + 1, SLOTS)],
  ArrowUp: ([d, s]) => [within(d - 1, WEEKDAYS.length), s],
  ArrowDown: ([d, s]) => [within(d + 1, WEEKDAYS.length), s],
  Home: ([d]) => [d, 0],
  End: ([d]) => [d, SLOTS - 1],
};
