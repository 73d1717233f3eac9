import type { Instant } from '../instant';
import { intersect, occurrences, union, type Place } from '../when';
import { layoutItems, segmentPlays, zonePlays, type Play, type ZonePlays } from './plays';
import type { LoopItem } from './loop';
import type { ScreenProgram } from './program';
import { layoutInstants, type Segment } from './segments';

/** A time in which a layout is drawn over whatever plays. */
export interface OverlayTime {
  readonly from: Instant;
  readonly to: Instant;
  /** The booking's id. */
  readonly id: string;
  /** Start of its occurrence: where its zones' clocks began. */
  readonly since: Instant;
  readonly layout: string;
  readonly zones: readonly ZonePlays[];
}

/**
 * What is drawn above what plays in some segments that follow each other. It never competes: several are drawn at once, those that section
 * 5 puts ahead above the others, so they come last at each instant. None is drawn while the display is dark, nor over a takeover, unless it
 * says so.
 */
export const overlays = (program: ScreenProgram, place: Place, segments: readonly Segment[]): OverlayTime[] =>
  overlayTimes(program, place, segments).map((time) => {
    const turn = { ...time, start: time.since, loop: -1, item: 0, fromMs: 0, weave: null };
    return { ...time, zones: zonePlays(program, place, { since: time.since }, turn) ?? [] };
  });

/** The same times, without what the zones show. */
export function overlayTimes(
  program: ScreenProgram,
  place: Place,
  segments: readonly Segment[],
): Omit<OverlayTime, 'zones'>[] {
  const [from, to] = [segments[0]?.from ?? 0, segments.at(-1)?.to ?? 0];
  const times = (program.overlays ?? []).flatMap((overlay) => {
    const { id, when, layout, priority, created, overTakeovers = false } = overlay;
    const bare = segments.filter(({ source }) => source !== 'lights-out' && (overTakeovers || source !== 'takeover'));
    const free = union(bare.map((one) => [one.from, one.to] as const));
    const shows = intersect(free, layoutInstants(program, layout, place, from, to));
    return occurrences(when, place, from, to).flatMap((one) =>
      intersect([[Math.max(one.from, from), Math.min(one.to, to)]], shows).map(([begin, end]) => {
        return { priority, created, time: { from: begin, to: end, id, since: one.from, layout } };
      }),
    );
  });
  return times
    .sort(
      (a, b) =>
        a.time.from - b.time.from ||
        a.priority - b.priority ||
        a.time.since - b.time.since ||
        a.created - b.created ||
        (a.time.id < b.time.id ? -1 : 1),
    )
    .map(({ time }) => time);
}

/**
 * All that is drawn in a segment: its plays, after each layout's play those of its zones, and what is drawn above with its zones. What belongs to an
 * overlay names its booking as `weave`; its layout's own play has the loop -1.
 */
export function drawnPlays(program: ScreenProgram, place: Place, segment: Segment): Play[] {
  const plays = segmentPlays(program, place, segment);
  if (!program.layouts) return plays;
  const within = plays.flatMap((play) => [
    play,
    ...(zonePlays(program, place, segment, play) ?? []).flatMap((zone) =>
      zone.plays.map((one) => ({ ...one, weave: play.weave })),
    ),
  ]);
  const above = overlays(program, place, [segment]).flatMap(({ id, layout, since, from, to, zones }): Play[] => [
    { layout, start: since, from, to, loop: -1, item: 0, fromMs: 0, weave: id },
    ...zones.flatMap((zone) => zone.plays.map((one) => ({ ...one, weave: id }))),
  ]);
  return [...within, ...above];
}

/** The turns that may be drawn above what plays: those of the overlays' zones. */
export const overlayItems = (program: ScreenProgram): readonly LoopItem[] =>
  (program.overlays ?? []).flatMap(({ layout }) => layoutItems(program, layout));
