import { group } from 'd3-array';
import type { LocalOccasion } from '@/core/booking';
import type { Booking } from '@/core/plan';
import type { Finding } from '@/core/preflight';
import type { LocalTime } from '@/core/when';

export type Layer = 'takeover' | 5 | 4 | 3 | 2 | 1;

/** From the top: the highest at each moment is what shows. */
export const LAYERS: readonly Layer[] = ['takeover', 5, 4, 3, 2, 1];

export const layerOf = ({ takeover, priority }: Booking): Layer => (takeover ? 'takeover' : (priority as Layer));

export const layerName = (layer: Layer) => (layer === 'takeover' ? 'takeover' : `priority ${layer}`);

export const sightingKey = ({ booking, date, set, window }: LocalOccasion) => `${booking} ${date} ${set} ${window}`;

/** One occasion as a bar. */
export interface Bar {
  readonly key: string;
  readonly localOccasion: LocalOccasion;
  readonly booking: Booking;
  readonly layer: Layer;
  /** Its row within the layer, from 0 at the bottom. */
  readonly lane: number;
  /** Where the next bar of its lane begins; null for the last. */
  readonly next: number | null;
}

export interface LayerOfBars {
  readonly layer: Layer;
  readonly lanes: number;
  readonly bars: readonly Bar[];
}

/** All layers with their bars. A booking keeps to one lane, the longest stand lowest; bars of one lane never overlap. */
export function layout(bookings: readonly Booking[], localOccasions: readonly LocalOccasion[]): LayerOfBars[] {
  const byBooking = group(localOccasions, (one) => one.booking);
  return LAYERS.map((layer) => {
    const here = bookings
      .filter((booking) => layerOf(booking) === layer && byBooking.has(booking.id))
      .map((booking) => ({ booking, list: byBooking.get(booking.id) ?? [] }))
      .sort((a, b) => lengthOf(b.list) - lengthOf(a.list) || (a.booking.id < b.booking.id ? -1 : 1));
    const lanes: LocalOccasion[][] = [];
    const placed = here.map(({ booking, list }) => {
      const free = lanes.findIndex((lane) => list.every((one) => lane.every((other) => apart(one, other))));
      const lane = free < 0 ? lanes.push([]) - 1 : free;
      lanes[lane]?.push(...list);
      return { booking, list, lane };
    });
    const bars = placed.flatMap(({ booking, list, lane }) =>
      list.map((localOccasion): Bar => {
        const later = (lanes[lane] ?? []).filter((one) => one.start >= localOccasion.end).map((one) => one.start);
        const next = later.length > 0 ? Math.min(...later) : null;
        return { key: sightingKey(localOccasion), localOccasion, booking, layer, lane, next };
      }),
    );
    return { layer, lanes: lanes.length, bars: bars.sort((a, b) => a.localOccasion.start - b.localOccasion.start) };
  });
}

/** How many lanes are above a layer. */
export const lanesAbove = (layers: readonly LayerOfBars[], at: number) =>
  layers.slice(0, at).reduce((sum, { lanes }) => sum + lanes, 0);

/** Where a bar has trouble: the time at which its mark stands, and what it is, by the bar's key. */
export type Marks = ReadonlyMap<string, { readonly at: LocalTime; readonly finding: Finding }>;

/** A clash is marked on the one that waits, where the two meet; what else is wrong with a booking, on all of its bars. */
export function troubleMarks(bars: readonly Bar[], findings: readonly Finding[]): Marks {
  const byBooking = group(bars, (bar) => bar.booking.id);
  const marks = new Map<string, { at: LocalTime; finding: Finding }>();
  for (const finding of findings) {
    const [first = '', second = ''] = finding.about;
    const clash = finding.kind === 'clash';
    for (const bar of byBooking.get(clash ? second : first) ?? []) {
      const meets = clash ? byBooking.get(first)?.find((other) => !apart(other.localOccasion, bar.localOccasion)) : bar;
      if (!meets || marks.has(bar.key)) continue;
      marks.set(bar.key, { at: Math.max(bar.localOccasion.start, meets.localOccasion.start) as LocalTime, finding });
    }
  }
  return marks;
}

const lengthOf = (list: readonly LocalOccasion[]) => list.reduce((sum, { start, end }) => sum + end - start, 0);

const apart = (a: LocalOccasion, b: LocalOccasion) => a.end <= b.start || b.end <= a.start;
