'use client';

import { DAY, HOUR } from '@/core/instant';
import {
  dateOfLocalTime,
  formatLocalTime,
  startOfDate,
  addDays,
  toInstant,
  zoneTable,
  type LocalTime,
} from '@/core/when';
import { dateWords } from '../site-clock-words';
import { ticks, type TimeScale } from './scale';

/** The days and hours over the layers, with the changes of clocks of the zone. */
export function Ruler({ scale, zone, onDay }: { scale: TimeScale; zone: string; onDay: (date: number) => void }) {
  const days = Array.from({ length: scale.days }, (_, i) => addDays(scale.first, i));
  const single = scale.days === 1;
  return (
    <div className="relative h-10 select-none">
      {days.map((date) => {
        const shift = clockShift(zone, date);
        return (
          <div
            key={date}
            className="absolute top-0 flex h-10 flex-col justify-between border-l border-rule pt-0.5"
            style={{ left: scale.x(startOfDate(date)), width: scale.width / scale.days }}
          >
            <span className="flex items-baseline gap-2 pl-1.5">
              <button
                type="button"
                onClick={() => onDay(date)}
                className="truncate text-sm font-semibold hover:text-tide"
                title={single ? 'The week of this day' : 'This day alone'}
              >
                {dateWords(date)}
              </button>
              {shift !== 0 && (
                <span className="whitespace-nowrap bg-brick px-1 text-xs text-paper" data-testid="clock-change">
                  clocks {shift > 0 ? '+' : '−'}
                  {Math.abs(shift) / HOUR} h
                </span>
              )}
            </span>
          </div>
        );
      })}
      {ticks(scale).map((time) => (
        <span
          key={time}
          aria-hidden
          data-hour={time % DAY === 0 ? undefined : ''}
          className="absolute bottom-0 -translate-x-1/2 font-code text-[10px] text-faint"
          style={{ left: scale.x(time) }}
        >
          {time % DAY === 0 ? '' : formatLocalTime(time).slice(0, single ? 5 : 2)}
        </span>
      ))}
    </div>
  );
}

/** How far the clocks of a zone go forward (positive) or back on a date, in milliseconds. */
export function clockShift(zone: string, date: number): number {
  const table = zoneTable(zone);
  const [from, to] = [date, date + 1].map((day) => toInstant(table, (day * DAY) as LocalTime)) as [number, number];
  return DAY - (to - from);
}

/** The lines of the hours, behind everything. */
export function Lines({ scale }: { scale: TimeScale }) {
  return (
    <div aria-hidden className="pointer-events-none absolute inset-0">
      {ticks(scale).map((time) => (
        <div
          key={time}
          className={`absolute inset-y-0 border-l ${time === startOfDate(dateOfLocalTime(time)) ? 'border-rule' : 'border-rule/40'}`}
          style={{ left: scale.x(time) }}
        />
      ))}
    </div>
  );
}
