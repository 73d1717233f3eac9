import equal from 'fast-deep-equal';
import type { Firing } from '../cues';
import { glances, programsOf, type Board, type ScreenProgram } from '../forecast';
import { placeOf } from '../forecast/program';
import { loopInstants } from '../forecast/segments';
import { DAY, type Instant } from '../instant';
import type { Booking } from '../plan/kinds/booking';
import type { Layout, Zone } from '../plan/kinds/layout';
import { objectIn } from '../plan/patch';
import type { Plan } from '../plan/schema';
import { screensMatching, selectorOf } from '../selector';
import { instantsOf, subtract, type Intervals, type Place } from '../when';
import { READ_FROM_M, capitalsPx, leastLetterMm, pixelMm, smallPrintPx } from './legible';

/** A layout as screens of one size see it at an instant, all alike. */
export interface LayoutSeen {
  readonly screens: readonly string[];
  /** In pixels, of each of these screens. */
  readonly width: number;
  readonly height: number;
  /** Whether they really show it then; else it is what they would show. */
  readonly isOn: boolean;
  readonly board: Board;
  /** When the first of its zones shows something else. */
  readonly until: Instant | null;
  readonly zones: readonly ZoneSeen[];
}

export interface ZoneSeen {
  readonly zone: string;
  /** Whether it has a place on these screens, by its `where`. */
  readonly isThere: boolean;
  /** Why it shows nothing at some time in the day ahead: nothing was chosen for it, it has times of its own, or what it shows has. Null where it always shows something. */
  readonly why: 'nothing chosen' | 'its time' | 'what it shows' | null;
  /** When it shows nothing, in the day ahead. */
  readonly empty: Intervals;
  /** How high its writing is on the glass, and has to be to be read from `READ_FROM_M`, in millimetres; null where it is high enough, or has none. */
  readonly small: { readonly mm: number; readonly leastMm: number } | null;
}

/** How each kind of screen sees a layout at an instant, the size with the most screens first. Empty where the plan has no such layout, or no screen. */
export function layoutSeen(plan: Plan, id: string, at: Instant, firings?: readonly Firing[]): LayoutSeen[] {
  const layout = objectIn(plan, 'layout', id);
  if (!layout) return [];
  const trial = shownEverywhere(plan, id);
  const programs = programsOf(trial);
  const would = new Map(glances(trial, at).map((one) => [one.screen, one]));
  const really = new Map(glances(plan, at, undefined, firings).map((one) => [one.screen, one]));
  const meant = layout.zones.map(({ where }) =>
    where === undefined ? null : new Set(screensMatching(plan, selectorOf(where)).map((screen) => screen.id)),
  );
  const known = new Map<ScreenProgram, Omit<ZoneSeen, 'small'>[]>();
  const seen: (LayoutSeen & { screens: string[] })[] = [];
  for (const { id: screen, width, height, wall } of plan.screens) {
    const program = programs.get(screen);
    const real = really.get(screen);
    if (!program) continue;
    const on = [...(real?.above ?? []), ...(real?.board ? [real.board] : [])].find(
      (one) => one.kind === 'layout' && one.id === id,
    );
    const isOn = on !== undefined;
    const glance = isOn ? real : would.get(screen);
    const board = on ?? glance?.board ?? emptyBoard(layout);
    const until = glance?.board || isOn ? (glance?.until ?? null) : null;
    let emptiness = known.get(program);
    if (!emptiness) {
      emptiness = layout.zones.map((zone, i) => {
        const isThere = meant[i]?.has(screen) ?? true;
        return isThere
          ? { zone: zone.id, isThere, ...emptyTimes(program, id, zone, at) }
          : { zone: zone.id, isThere, why: null, empty: [] };
      });
      known.set(program, emptiness);
    }
    const size = { width, height };
    const mm = pixelMm({ ...size, wall }) * Math.min(width / layout.width, height / layout.height);
    const zones = emptiness.map((one, i): ZoneSeen => {
      const zone = layout.zones[i];
      const part = zone && partOf(board, zone);
      return { ...one, small: zone && part && one.isThere ? tooSmall(plan, zone, part.media, mm) : null };
    });
    const made = { screens: [screen], ...size, isOn, board, until, zones };
    const like = seen.find((one) => equal({ ...one, screens: null }, { ...made, screens: null }));
    if (like) like.screens.push(screen);
    else seen.push(made);
  }
  return seen.sort((a, b) => b.screens.length - a.screens.length);
}

/** The last trial of each plan: its programs are then made once for all moments that are looked at. */
const trials = new WeakMap<Plan, { readonly layout: string; readonly trial: Plan }>();

/** A plan in which nothing but a layout shows, always and everywhere. */
function shownEverywhere(plan: Plan, layout: string): Plan {
  const known = trials.get(plan);
  if (known?.layout === layout) return known.trial;
  const booking: Booking = {
    ...{ id: 'seen', name: 'Seen', content: { layout }, where: 'all', when: {}, priority: 1, takeover: true },
    ...{ wake: true, created: '1970-01-01T00:00:00Z' },
  };
  const trial = { ...plan, bookings: [booking] };
  trials.set(plan, { layout, trial });
  return trial;
}

/** The part of the board in a zone's place; undefined where the zone isn't on the screen. */
const partOf = (board: Board, { x, y, width, height }: Zone) =>
  board.parts.find((part) => part.x === x && part.y === y && part.width === width && part.height === height);

/** A layout of which nothing is to be seen but its places. */
const emptyBoard = ({ id, name, width, height, background, zones }: Layout): Board => ({
  ...{ kind: 'layout', id, name, width, height, background },
  parts: zones.map(({ x, y, width: across, height: down }) => ({ x, y, width: across, height: down })),
});

function emptyTimes(program: ScreenProgram, layout: string, zone: Zone, at: Instant): Pick<ZoneSeen, 'why' | 'empty'> {
  const loop = program.layouts?.[layout]?.zones.find(({ id }) => id === zone.id)?.loop ?? -1;
  const place: Place = placeOf(program);
  const day = [[at, at + DAY]] as const;
  const shows = loop < 0 ? [] : loopInstants(program, program.loops[loop] ?? [], place, at, at + DAY);
  const empty = subtract(day, shows);
  const its = zone.when ? subtract(day, instantsOf(zone.when, place, at, at + DAY)) : [];
  const beyond = subtract(empty, its);
  const why =
    empty.length === 0 ? null : !zone.content ? 'nothing chosen' : beyond.length === 0 ? 'its time' : 'what it shows';
  return { why, empty };
}

/** Whether the writing of what a zone shows is too small, where a pixel of the layout is so many millimetres on the glass. */
function tooSmall(plan: Plan, zone: Zone, media: string | undefined, mmOfPixel: number): ZoneSeen['small'] {
  const leastMm = leastLetterMm(READ_FROM_M);
  const file = media === undefined ? undefined : plan.media.find((one) => one.id === media);
  const text = zone.content?.bulletin && objectIn(plan, 'bulletin', zone.content.bulletin)?.text;
  const px = file?.width
    ? smallPrintPx({ width: file.width, height: file.height ?? 1 }, zone)
    : text
      ? capitalsPx(text, zone)
      : null;
  if (px === null) return null;
  const mm = px * mmOfPixel;
  return mm < leastMm ? { mm, leastMm } : null;
}
