import { group } from 'd3-array';
import type { ProgramDocument, ShownAsset } from '../edition/compile';
import { forecast } from '../forecast/forecast';
import type { Play, WholePlay } from '../forecast/plays';
import type { ProgramLayout, ProgramZone } from '../forecast/program';
import type { Instant } from '../instant';
import { drawnIn } from '../plan/contents';
import { LONGEST_TRANSITION_MS, type Fit } from '../plan/looks';

/** What may be seen in one place: the whole glass, a zone of a layout, or what is drawn above. */
export type Look =
  /** Nothing is drawn: what is behind it is seen. */
  | { readonly kind: 'nothing' }
  /** Lights-out hours. */
  | { readonly kind: 'black' }
  | {
      readonly kind: 'file';
      readonly media: string;
      readonly asset: ShownAsset;
      readonly fit: Fit;
      /** How far into a video, in milliseconds; null for a picture. */
      readonly atMs: number | null;
    }
  | LayoutLook
  /** Words, or another source by its id: how exactly they look is known to the display alone. */
  | { readonly kind: 'words' | 'input'; readonly text: string };

export interface LayoutLook extends Pick<ProgramLayout, 'width' | 'height' | 'background'> {
  readonly kind: 'layout';
  readonly fit: Fit;
  /** A later one is above an earlier one. */
  readonly zones: readonly ZoneLooks[];
}

/** What may be seen in one place at an instant. */
export interface Looks {
  /** In the order in which they show: the one that is due, and its neighbours where a change is near. */
  readonly looks: readonly Look[];
  /** The one that the forecast gives for the instant. */
  readonly due: Look;
  /** Whether one gives way to another at this instant. */
  readonly changing: boolean;
}

/** In pixels of the layout. */
export interface ZoneLooks extends Looks, Pick<ProgramZone, 'x' | 'y' | 'width' | 'height'> {}

/** What may be on the glass at an instant. */
export interface GlassLooks extends Looks {
  /** Layouts that are drawn above it, the lowest first: their zones alone are seen. */
  readonly above: readonly Looks[];
}

/** A picture that was taken so long before or after a change may show either: a player's clock is exact to some tenths of a second. */
const SLACK_MS = 700;

/** What a program may show at an instant. Knows firings where they were put beside the program (`withFirings`). */
export function looksAt(program: ProgramDocument, at: Instant): GlassLooks {
  const from = at - SLACK_MS - LONGEST_TRANSITION_MS;
  const { segments, plays, overlays = [] } = forecast(program, from, at + SLACK_MS, { plays: true });
  const dark = segments.flatMap(({ source, from, to }) => (source === 'lights-out' ? [{ from, to, look: BLACK }] : []));
  const drawnAbove = group(overlays, ({ id }) => id);
  return {
    ...around([...plays.map((play) => shownBy(program, play, at)), ...dark], at),
    above: [...drawnAbove.values()].map((times) =>
      around(
        times.map(({ from, to, layout, zones }) => ({ from, to, look: layoutLook(program, layout, zones, at) })),
        at,
      ),
    ),
  };
}

/** A look, and from when to when it shows; where a transition brings it, also until when the one before may be seen. */
interface Shown {
  readonly from: Instant;
  readonly to: Instant;
  readonly look: Look;
  readonly comes?: { readonly from: Instant; readonly until: Instant } | undefined;
}

const BLACK: Look = { kind: 'black' };
const NOTHING: Look = { kind: 'nothing' };

/** What may be seen around an instant of what shows one after the other, with nothing in between. */
function around(list: readonly Shown[], at: Instant): Looks {
  const shown = [...list].sort((a, b) => a.from - b.from);
  const due = shown.find(({ from, to }) => from <= at && at < to)?.look ?? NOTHING;
  const near = shown.filter(({ from, to }) => from < at + SLACK_MS && at - SLACK_MS < to);
  const coming = near.filter(({ comes }) => comes && comes.from - SLACK_MS <= at && at < comes.until);
  // A transition that began before all this: what it began from is seen too.
  const before = shown.filter((one) => coming.some(({ comes }) => comes?.from === one.to) && !near.includes(one));
  const [first, last] = [near[0], near.at(-1)];
  const isBare =
    !first ||
    !last ||
    first.from > at - SLACK_MS ||
    last.to < at + SLACK_MS ||
    near.some((one, i) => one.to < (near[i + 1]?.from ?? 0));
  const looks = [...before, ...near].map(({ look }) => look);
  const all = isBare ? [...looks, NOTHING] : looks;
  return { looks: all, due, changing: all.length > 1 && coming.length > 0 };
}

function shownBy(program: ProgramDocument, play: WholePlay, at: Instant): Shown {
  const { from, to, start, zones = [] } = play;
  const { transition } = program.loops[play.loop]?.[play.item] ?? {};
  const comes = transition && { from: start, until: start + transition.ms + SLACK_MS };
  const look =
    play.layout === undefined
      ? lookOf(program, play, at)
      : layoutLook(program, play.layout, zones, at, fitOf(program, play));
  return { from, to, look, comes };
}

const fitOf = (program: ProgramDocument, { loop, item }: Play): Fit => program.loops[loop]?.[item]?.fit ?? 'whole';

function lookOf(program: ProgramDocument, play: Play, at: Instant): Look {
  const { kind, id } = drawnIn(play);
  if (kind === 'input') return { kind: 'input', text: id };
  if (kind === 'bulletin') return { kind: 'words', text: program.bulletins?.[id]?.text ?? '' };
  const asset = program.assets[id];
  // A file that the program doesn't have can't be drawn by the player either: its own words say so.
  if (!asset || asset.kind === 'sound') return { kind: 'words', text: id };
  const atMs = asset.kind === 'video' ? play.fromMs + Math.max(0, Math.min(at, play.to) - play.start) : null;
  return { kind: 'file', media: id, asset, fit: fitOf(program, play), atMs };
}

function layoutLook(
  program: ProgramDocument,
  id: string,
  shown: NonNullable<WholePlay['zones']>,
  at: Instant,
  fit: Fit = 'whole',
): Look {
  const layout = program.layouts?.[id];
  if (!layout) return { kind: 'words', text: id };
  const { width, height, background, zones } = layout;
  const plays = new Map(shown.map((one) => [one.zone, one.plays]));
  return {
    ...{ kind: 'layout', width, height, background, fit },
    zones: zones.map((zone) => ({
      ...{ x: zone.x, y: zone.y, width: zone.width, height: zone.height },
      ...around(
        (plays.get(zone.id) ?? []).map((play) => shownBy(program, play, at)),
        at,
      ),
    })),
  };
}
