'use client';

import { rollup } from 'd3-array';
import {
  memo,
  useCallback,
  useDeferredValue,
  useMemo,
  useRef,
  useState,
  type FocusEvent,
  type KeyboardEvent,
  type MouseEvent,
} from 'react';
import type { Booking, Site } from '@/core/plan';
import type { Finding, Fix } from '@/core/preflight';
import { addDays, type LocalDate } from '@/core/when';
import { useNetwork, useThumbnails } from '@/interface/data/provider';
import { firstMedia } from '@/interface/kit/content/content';
import { Select } from '@/interface/kit/controls/field';
import { zoneName } from '@/interface/kit/words/format';
import { useShades } from '@/interface/kit/content/use-shades';
import { useWidth } from '@/interface/kit/page/use-width';
import { useOutcome, useSightings } from '../use-ahead';
import { Ghost, LayerBars, LayerName } from './band';
import { Foot } from './foot';
import { WhatShows } from './what-shows';
import { useSightOfLayers } from './use-sight-of-layers';
import { useWhy } from './use-why';
import { barKey, heldKey, neighbour } from '../gestures/keys';
import { lanesAbove, layout, troubleMarks } from './layout';
import { Moments } from './moments';
import { Lines, Ruler } from './ruler';
import { timeScale, type TimeScale } from './scale';
import { bandHeight } from './sizes';
import type { Held } from '../gestures/held';
import { useGesture } from '../gestures/use-gesture';
import { useGrowing } from './use-growing';
import { useKeptFocus } from './use-kept-focus';
import { usePointer } from '../gestures/use-pointer';

/** Beside the bars, in pixels. */
const [WIDE_GUTTER, NARROW_GUTTER] = [168, 92];
const GROUPS_AT_FIRST = 12;

interface StrataProps {
  readonly bookings: readonly Booking[];
  /** The selector of the screens whose outcome is shown; all where it is absent. */
  readonly where: string | undefined;
  /** On whose clock and opening hours bars are drawn. */
  readonly site: Site;
  onSite(site: string): void;
  readonly first: LocalDate;
  readonly days: number;
  /** Whether there is little room beside the bars. */
  readonly narrow: boolean;
  readonly findings: readonly Finding[];
  onOpen(booking: string): void;
  onDraw(drawn: Held): void;
  onDay(date: number): void;
}

/** Time runs across, priorities are layers: the highest at each moment is what shows, and below stands the outcome. */
export const Strata = memo(function Strata({
  bookings,
  where,
  site,
  onSite,
  first,
  days,
  narrow,
  findings,
  onOpen,
  onDraw,
  onDay,
}: StrataProps) {
  const { draft } = useNetwork('draft');
  const thumbnail = useThumbnails();
  const gutter = narrow ? NARROW_GUTTER : WIDE_GUTTER;
  const field = useRef<HTMLDivElement>(null);
  const width = useWidth(field, 1060);
  const scale = useMemo(() => timeScale(first, days, width), [first, days, width]);
  const last = addDays(first, days - 1);
  // Thousands of bars are drawn bit by bit, so that anything people do in between comes first.
  const seen = useDeferredValue(useSightings(site, first, last));
  const layers = useMemo(() => layout(bookings, seen ?? []), [bookings, seen]);
  const shownLanes = useGrowing(lanesAbove(layers, layers.length), `${first} ${days}`);
  const bars = useMemo(() => new Map(layers.flatMap((one) => one.bars.map((bar) => [bar.key, bar]))), [layers]);
  const edges = useMemo(
    () => [...new Set([...bars.values()].flatMap(({ localOccasion }) => [localOccasion.start, localOccasion.end]))],
    [bars],
  );
  const [pickedKey, pick] = useState<string | null>(null);
  const letGo = useCallback(() => pick(null), []);
  const { asked, onWhy, forget } = useWhy(findings, letGo);
  const picked = bars.get(pickedKey ?? '') ?? null;
  const gesture = useGesture(draft, site, onDraw);
  const pointer = usePointer(
    scale,
    gesture,
    (key) => bars.get(key),
    edges,
    (bar) => {
      pick(bar?.key ?? null);
      forget();
    },
  );
  const { held, choice, preview } = gesture;
  const hand = held ?? choice?.held;
  const [allGroups, showAllGroups] = useState(false);
  const outcome = useOutcome(first, last, preview, where, allGroups ? undefined : GROUPS_AT_FIRST);
  const about = useMemo(() => aboutBookings(findings), [findings]);
  const marks = useMemo(() => troubleMarks([...bars.values()], findings), [bars, findings]);
  const fix = (one: Fix) => void gesture.make(one.edits, `${one.label}: done. Ctrl Z undoes it.`);

  useKeptFocus(field, layers, hand?.bar ? hand : (choice ?? picked));

  const onDigit = (digit: number) => {
    const one = asked?.fixes[digit - 1];
    if (one) fix(one);
  };

  const barAt = ({ target }: FocusEvent | KeyboardEvent | MouseEvent) =>
    bars.get((target as HTMLElement).closest<HTMLElement>('[data-bar]')?.dataset.bar ?? '');
  const onKeyDown = (event: KeyboardEvent) => {
    const bar = barAt(event);
    if (!bar) return;
    const done =
      heldKey(event, gesture, scale) ||
      barKey(event, bar, gesture, about.get(bar.booking.id)?.[0]?.fixes ?? [], () => onOpen(bar.booking.id), fix);
    const next = done ? undefined : neighbour(layers, bar, event.key);
    if (!done && !next) return;
    event.preventDefault();
    event.stopPropagation();
    if (next) field.current?.querySelector<HTMLElement>(`[data-bar="${CSS.escape(next.key)}"]`)?.focus();
  };

  /** What is done to bars is heard here, so that thousands of them stay as they are. */
  const hears = {
    onKeyDown,
    onFocus(event: FocusEvent) {
      const bar = barAt(event);
      if (bar) pick(bar.key);
    },
    onDoubleClick(event: MouseEvent) {
      const bar = barAt(event);
      if (bar) onOpen(bar.booking.id);
    },
  };

  const { scroll, out, under } = useSightOfLayers(layers, seen !== null);

  const tabbable = picked?.key ?? [...bars.keys()][0];
  const pictures = useMemo(
    () => new Map(bookings.map(({ id, content }) => [id, thumbnail(firstMedia(draft, content))])),
    [bookings, draft, thumbnail],
  );
  const shades = useShades(useMemo(() => [...pictures.values()], [pictures]));
  /** The bar that is in hand or waits to be changed: what it was is seen through. */
  const taken = choice?.bar.key ?? (held && !held.copy ? held.bar?.key : undefined) ?? null;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div ref={scroll} className="min-h-40 flex-1 scroll-pt-16 overflow-y-auto px-3 [scrollbar-gutter:stable] sm:px-6">
        <Head site={site} gutter={gutter} scale={scale} onSite={onSite} onDay={onDay} />
        <div className="relative flex">
          <div className="shrink-0" style={{ width: gutter }}>
            {layers.map(({ layer, lanes }, i) => (
              <LayerName key={layer} layer={layer} height={bandHeight(lanes)} out={out[i] ?? 0} />
            ))}
          </div>
          <div
            ref={field}
            role="group"
            aria-label="Bookings in layers"
            className="relative min-w-0 flex-1 touch-none select-none overflow-hidden"
            {...pointer}
            {...hears}
          >
            <Lines scale={scale} />
            {layers.map(({ layer, lanes, bars: list }, i) => (
              <div
                key={layer}
                data-layer={layer}
                className={`relative border-b border-rule ${held?.layer === layer ? 'bg-well/70' : ''}`}
                style={{ height: bandHeight(lanes) }}
              >
                <LayerBars
                  bars={list}
                  fromLane={lanes - Math.max(0, shownLanes - lanesAbove(layers, i))}
                  scale={scale}
                  pictures={pictures}
                  shades={shades}
                  findings={about}
                  marks={marks}
                  taken={taken}
                  tabbable={tabbable}
                />
                {hand?.layer === layer && <Ghost held={hand} scale={scale} />}
              </div>
            ))}
            <Moments scale={scale} zone={site.timeZone} />
          </div>
        </div>
      </div>
      <WhatShows
        outcome={outcome}
        isPreview={preview !== undefined}
        under={under}
        all={allGroups}
        onAll={showAllGroups}
        plan={draft}
        scale={scale}
        pictures={pictures}
        shades={shades}
        gutter={gutter}
        onWhy={onWhy}
        onDigit={onDigit}
      />
      <Foot
        gesture={gesture}
        picked={picked}
        findings={picked ? (about.get(picked.booking.id) ?? []) : []}
        asked={asked}
        onOpen={onOpen}
        onFix={fix}
        hint="Draw in a layer to book. Drag a bar to another time, day or layer, or drag its end; with Alt it copies, with Shift it moves by minutes. With keys: arrows move, Space picks up."
        heldKeys={HELD_KEYS}
      />
    </div>
  );
});

/** Above the layers: on whose clock they are drawn, and the days. */
function Head({
  site,
  gutter,
  scale,
  onSite,
  onDay,
}: Pick<StrataProps, 'site' | 'onSite' | 'onDay'> & { gutter: number; scale: TimeScale }) {
  const { draft } = useNetwork('draft');
  return (
    <div className="sticky top-0 z-20 flex border-b border-rule bg-paper">
      <div className="shrink-0 self-center pr-3" style={{ width: gutter }}>
        <Select
          aria-label="Each site’s own clock; opening hours and pinned times as at"
          title={`Times are each site’s own clock. Opening hours and pinned times are drawn as at this site (${zoneName(site.timeZone)}).`}
          className="!px-1 !py-1 text-sm"
          value={site.id}
          onChange={(event) => onSite(event.target.value)}
        >
          {draft.sites.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
      </div>
      <div className="min-w-0 flex-1 overflow-hidden">
        <Ruler scale={scale} zone={site.timeZone} onDay={onDay} />
      </div>
    </div>
  );
}

const HELD_KEYS = [
  ['← →', 'time'],
  ['Shift', 'end'],
  ['Ctrl', 'start'],
  ['↑ ↓', 'layer'],
  ['Page', 'day'],
  ['c', 'copy'],
  ['Enter', 'down'],
  ['Esc', 'back'],
] as const;

/** The findings about each booking; one about two bookings is listed for both. */
function aboutBookings(findings: readonly Finding[]): ReadonlyMap<string, readonly Finding[]> {
  const pairs = findings.flatMap((finding) => finding.about.map((id) => ({ id, finding })));
  return rollup(
    pairs,
    (list) => list.map((one) => one.finding),
    (one) => one.id,
  );
}
