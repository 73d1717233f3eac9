import { scaleLinear } from 'd3-scale';
import { tickHours } from '@/interface/kit/words/ticks';
import { DAY, HOUR, MINUTE } from '@/core/instant';
import { startOfDate, type LocalDate, type LocalTime } from '@/core/when';

/** Time of a wall's clock across: `days` dates from `first` on, over `width` pixels. */
export interface TimeScale {
  readonly first: LocalDate;
  readonly days: number;
  readonly width: number;
  /** Hours between two lines of the ruler. */
  readonly tickHours: number;
  /** The step that times snap to, in milliseconds. */
  readonly step: number;
  x(time: LocalTime): number;
  time(x: number): LocalTime;
}

/** What "05:00" and "06" need on the ruler, in pixels. */
const [HOUR_ROOM, TWO_DIGITS_ROOM] = [43, 24];

export function timeScale(first: LocalDate, days: number, width: number): TimeScale {
  const begin = startOfDate(first);
  const scale = scaleLinear([begin, begin + days * DAY], [0, Math.max(1, width)]);
  return {
    first,
    days,
    width,
    tickHours: days === 1 ? tickHours(width, 24, HOUR_ROOM) : Math.max(6, tickHours(width / days, 24, TWO_DIGITS_ROOM)),
    step: (days === 1 ? 5 : 15) * MINUTE,
    x: (time) => scale(time),
    time: (x) => scale.invert(x) as LocalTime,
  };
}

const NEAR_PIXELS = 6;

/** The nearest of `edges` within a few pixels, else the nearest step; with `fine`, the nearest minute. */
export function snap(time: LocalTime, scale: TimeScale, edges: readonly LocalTime[], fine: boolean): LocalTime {
  if (fine) return (Math.round(time / MINUTE) * MINUTE) as LocalTime;
  const near = edges
    .map((edge) => ({ edge, far: Math.abs(scale.x(edge) - scale.x(time)) }))
    .filter(({ far }) => far <= NEAR_PIXELS)
    .sort((a, b) => a.far - b.far)[0];
  return near ? near.edge : ((Math.round(time / scale.step) * scale.step) as LocalTime);
}

/** The lines of the ruler, with the first of each day. */
export function ticks(scale: TimeScale): LocalTime[] {
  const begin = startOfDate(scale.first);
  const count = (scale.days * DAY) / (scale.tickHours * HOUR);
  return Array.from({ length: count }, (_, i) => (begin + i * scale.tickHours * HOUR) as LocalTime);
}
