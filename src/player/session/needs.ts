import {
  DAY,
  drawnItems,
  forecast,
  layoutItems,
  loopsIn,
  placeOf,
  type Asset,
  type Instant,
  type ProgramDocument,
} from '@/core/playing';

/** A file that a program shows, and when it is first to be seen. */
export interface Need {
  readonly asset: Asset;
  /** Now or earlier: it is due; Infinity: not within the time that was looked at. */
  readonly by: Instant;
}

/** How far ahead it is worked out when a file is first due. */
const LOOK_AHEAD = 62 * DAY;
/** A new program starts only when all that it shows in so long a time is here. */
export const FIRST_DAY = DAY;

/**
 * The files of a program, each once, those that are due first in front. The first day is exact to the play; later days to the
 * segment in which a file's loop begins.
 */
export function needsOf(program: ProgramDocument, now: Instant): Need[] {
  const due = new Map<string, Instant>();
  const need = (media: string | undefined, by: Instant) => {
    if (media !== undefined && by < (due.get(media) ?? Infinity)) due.set(media, by);
  };
  const isDue = (media: string | undefined) => media === undefined || due.has(media);
  const place = placeOf(program);
  for (const segment of forecast(program, now, now + LOOK_AHEAD).segments) {
    // What sounds beside a loop goes from its beginning on.
    for (const { media } of program.music?.[segment.loop]?.loop ?? []) need(media, segment.from);
    const loops = loopsIn(program, place, segment);
    const items = loops.flatMap(({ loop }) => drawnItems(program, loop));
    if (items.every((item) => isDue(item.media))) continue;
    if (segment.from < now + FIRST_DAY) {
      const round = items.reduce((sum, item) => sum + item.durationMs, 0);
      const until = Math.min(segment.to, segment.from + round);
      for (const { zones = [], ...play } of forecast(program, segment.from, until, { plays: true }).plays) {
        need(play.media, play.from);
        for (const zone of zones) for (const { media, from } of zone.plays) need(media, from);
      }
    }
    // What is not seen in the first round may come up at any time in the rest.
    for (const { loop, from } of loops)
      for (const item of drawnItems(program, loop)) if (!isDue(item.media)) need(item.media, from);
  }
  // What is drawn over everything may be seen at any time.
  for (const { layout } of program.overlays ?? [])
    for (const { media } of layoutItems(program, layout)) if (!isDue(media)) need(media, now);
  const files = new Map<string, Need>();
  for (const [media, asset] of Object.entries(program.assets)) {
    const by = due.get(media) ?? Infinity;
    const known = files.get(asset.sha256);
    if (!known || by < known.by) files.set(asset.sha256, { asset, by });
  }
  return [...files.values()].sort((a, b) => (a.by < b.by ? -1 : a.by > b.by ? 1 : 0));
}
