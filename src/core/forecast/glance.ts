import type { Firing } from '../cues';
import { DAY, type Instant } from '../instant';
import { drawnIn, type DrawnKind } from '../plan/contents';
import type { Fit } from '../plan/looks';
import { objectIn } from '../plan/patch';
import type { Plan } from '../plan/schema';
import type { Place } from '../when';
import { forecast } from './forecast';
import { namedTerms, selectorOf } from '../selector';
import { screenGroups, selectedByName } from './screen-groups';
import { overlays } from './drawn';
import { segmentPlays, zonePlays, type Play, type ZonePlays } from './plays';
import { placeOf, type ScreenProgram } from './program';
import { programMaker } from './narrow';
import { segments, type Segment, type Source } from './segments';

/** What a screen shows at one instant, and what comes after. */
export interface Glance {
  readonly screen: string;
  readonly source: Source;
  /** The booking's id, the backdrop's level, or null. */
  readonly id: string | null;
  /** The file that is on; null in lights-out, where nothing plays, and where a layout, a bulletin or an input does. */
  readonly media: string | null;
  /** What is on where it isn't a file; absent otherwise. */
  readonly board?: Board | undefined;
  /** What is drawn above it, the lowest first; absent where nothing is. */
  readonly above?: readonly Board[] | undefined;
  /** When it is to be looked at again, since the file's turn ends or another part changes; null where nothing plays. */
  readonly until: Instant | null;
  /** The next change of what wins, within a day; null where there is none. */
  readonly next: { readonly at: Instant; readonly source: Source; readonly id: string | null } | null;
}

/** A layout, a bulletin or an input as it looks at one instant: its parts, a later one above an earlier one. */
export interface Board {
  readonly kind: Exclude<DrawnKind, 'media'>;
  readonly id: string;
  readonly name: string;
  /** In pixels of its own, as its parts are. */
  readonly width: number;
  readonly height: number;
  readonly background?: string | undefined;
  readonly parts: readonly BoardPart[];
}

/** What a zone shows: a file, or the words of a card, or the name of an input; none of them where it is empty then. */
export interface BoardPart {
  readonly media?: string | undefined;
  /** How the file is placed in it; absent: whole. */
  readonly fit?: Fit | undefined;
  readonly name?: string | undefined;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A plan's programs, each narrowed once and when it is asked for; screens that no selector can tell apart share one. */
interface Programs {
  readonly of: (screen: string) => ScreenProgram | undefined;
  readonly screens: readonly string[];
  readonly firings: readonly Firing[];
  all: ReadonlyMap<string, ScreenProgram> | null;
}

const NONE: readonly Firing[] = [];

const programs = new WeakMap<Plan, Programs>();

/** With what was fired, a plan's programs are others; those of the last firings are remembered. */
function narrowed(plan: Plan, firings = NONE): Programs {
  const known = programs.get(plan);
  if (known?.firings === firings) return known;
  const narrow = programMaker(plan, firings);
  const named = firings.flatMap(({ where }) => (where === undefined ? [] : namedTerms(selectorOf(where), 'screen:')));
  const [, keyOf] = screenGroups(plan, new Set([...selectedByName(plan), ...named]));
  const byKey = new Map<string, ScreenProgram>();
  const of = (screen: string) => {
    const key = keyOf.get(screen);
    if (key === undefined) return undefined;
    const program = byKey.get(key) ?? narrow(screen);
    byKey.set(key, program);
    return program;
  };
  const made: Programs = { of, screens: [...keyOf.keys()], firings, all: null };
  programs.set(plan, made);
  return made;
}

/** The program of one screen of a plan; undefined where it has no such screen. */
export const programOf = (plan: Plan, screen: string): ScreenProgram | undefined => narrowed(plan).of(screen);

/** A plan's programs by screen; with firings, one list of them at a time. */
export function programsOf(plan: Plan, firings?: readonly Firing[]): ReadonlyMap<string, ScreenProgram> {
  const found = narrowed(plan, firings);
  found.all ??= new Map(
    found.screens.flatMap((screen) => {
      const program = found.of(screen);
      return program ? [[screen, program] as const] : [];
    }),
  );
  return found.all;
}

/** Screens with the program that they share, those of `only` alone where given. */
function shared(plan: Plan, only?: ReadonlySet<string>, firings?: readonly Firing[]): Map<ScreenProgram, string[]> {
  const groups = new Map<ScreenProgram, string[]>();
  for (const [screen, program] of programsOf(plan, firings)) {
    if (only && !only.has(screen)) continue;
    const group = groups.get(program);
    if (group) group.push(screen);
    else groups.set(program, [screen]);
  }
  return groups;
}

/** A glance at every screen of a plan, or at those of `only`. */
export function glances(
  plan: Plan,
  instant: Instant,
  only?: ReadonlySet<string>,
  firings?: readonly Firing[],
): Glance[] {
  return [...shared(plan, only, firings)].flatMap(([program, screens]) => {
    const glance = glanceAt(plan, program, instant);
    return screens.map((screen) => ({ screen, ...glance }));
  });
}

function glanceAt(plan: Plan, program: ScreenProgram, instant: Instant): Omit<Glance, 'screen'> {
  const place = placeOf(program);
  const [first, ...later] = segments(program, place, instant, instant + DAY) as [Segment, ...Segment[]];
  const next = later.find((one) => one.source !== first.source || one.id !== first.id);
  const turn = turnAt(program, place, first, instant);
  const { until, ...on } = boardOf(plan, program, place, first, turn, instant);
  const { above, changesAt } = boardsAbove(plan, program, place, { ...first, to: until ?? first.to }, instant);
  return {
    source: first.source,
    id: first.id,
    media: turn?.media ?? null,
    ...on,
    ...(above.length > 0 ? { above } : {}),
    until: changesAt ?? until,
    next: next ? { at: next.from, source: next.source, id: next.id } : null,
  };
}

/** What is on at `instant` where it isn't a file, and until when: to the end of the first of its parts' turns. */
function boardOf(
  plan: Plan,
  program: ScreenProgram,
  place: Place,
  segment: Segment,
  turn: Play | undefined,
  instant: Instant,
): Pick<Glance, 'board' | 'until'> {
  if (!turn || turn.media !== undefined) return { until: turn?.to ?? null };
  const { kind, id } = drawnIn(turn) as { kind: Board['kind']; id: string };
  if (!program.layouts?.[turn.layout ?? '']) {
    const name = nameOf(plan, kind, id);
    const size = { width: 16, height: 9 };
    return {
      board: { kind, id, name, ...size, parts: [{ x: 0, y: 0, ...size, ...drawnWords(plan, kind, id) }] },
      until: turn.to,
    };
  }
  const to = Math.min(turn.to, instant + FIRST_LOOK);
  const zones = zonePlays(program, place, segment, { ...turn, from: instant, to }) ?? [];
  const { board, changesAt } = layoutAt(plan, program, id, zones, instant, to);
  return { board, until: changesAt };
}

/** What is drawn above what plays at `instant`, and when that changes within the segment; null where the program draws nothing above. */
function boardsAbove(
  plan: Plan,
  program: ScreenProgram,
  place: Place,
  segment: Segment,
  instant: Instant,
): { readonly above: readonly Board[]; readonly changesAt: Instant | null } {
  if (!program.overlays) return { above: [], changesAt: null };
  const end = Math.min(segment.to, instant + FIRST_LOOK);
  const times = overlays(program, place, [{ ...segment, from: instant, to: end }]);
  const on = times.filter(({ from }) => from === instant);
  const boards = on.map(({ layout, zones, to }) => layoutAt(plan, program, layout, zones, instant, to));
  return {
    above: boards.map(({ board: { background: _background, ...board } }) => board),
    changesAt: Math.min(
      end,
      ...times.flatMap(({ from }) => (from > instant ? [from] : [])),
      ...boards.map(({ changesAt }) => changesAt),
    ),
  };
}

/** A layout as it looks at `instant`, and when the first of its zones shows something else: `to` at the latest. */
function layoutAt(
  plan: Plan,
  program: ScreenProgram,
  id: string,
  shown: readonly ZonePlays[],
  instant: Instant,
  to: Instant,
): { readonly board: Board; readonly changesAt: Instant } {
  const { width = 16, height = 9, background, zones = [] } = program.layouts?.[id] ?? {};
  let changesAt = to;
  const of = new Map<string, Pick<BoardPart, 'media' | 'fit' | 'name'>>();
  for (const { zone, plays } of shown) {
    const [first, second] = plays;
    if (first?.from === instant) of.set(zone, pictured(plan, program, first));
    changesAt = Math.min(changesAt, (first?.from === instant ? second?.from : first?.from) ?? to);
  }
  const parts = zones.map((zone): BoardPart => {
    const { x, y } = zone;
    return { x, y, width: zone.width, height: zone.height, ...of.get(zone.id) };
  });
  const name = nameOf(plan, 'layout', id);
  return { board: { kind: 'layout', id, name, width, height, background, parts }, changesAt };
}

function pictured(plan: Plan, program: ScreenProgram, play: Play): Pick<BoardPart, 'media' | 'fit' | 'name'> {
  if (play.media !== undefined) return { media: play.media, fit: program.loops[play.loop]?.[play.item]?.fit };
  const { kind, id } = drawnIn(play);
  return drawnWords(plan, kind, id);
}

/** What is read of something that isn’t a file. */
function drawnWords(plan: Plan, kind: DrawnKind, id: string): Pick<BoardPart, 'name'> {
  const words = kind === 'bulletin' ? objectIn(plan, kind, id)?.text.trim() : undefined;
  return { name: words || nameOf(plan, kind, id) };
}

function nameOf(plan: Plan, kind: DrawnKind, id: string): string {
  const named =
    kind === 'input'
      ? plan.profiles.flatMap(({ inputs = [] }) => inputs).find((one) => one.id === id)
      : objectIn(plan, kind, id);
  return named?.name ?? id;
}

/** The turn that is on at `instant`, up to its end or its segment's. Looks ahead in growing steps: turns are mostly short. */
function turnAt(program: ScreenProgram, place: Place, segment: Segment, instant: Instant): Play | undefined {
  for (let ahead = FIRST_LOOK; ; ahead *= 8) {
    const to = Math.min(segment.to, instant + ahead);
    const [turn] = segmentPlays(program, place, { ...segment, to });
    if (!turn || turn.to < to || to === segment.to) return turn;
  }
}

const FIRST_LOOK = 60_000;

/** An instant at which screens change what wins, and how many. */
export interface Change {
  readonly at: Instant;
  readonly screens: number;
  /** Whether a takeover begins on one of them. */
  readonly takeover: boolean;
}

/** The changes of the given screens (all, where absent) in `[from, to)`, ascending. Days that merely follow on each other are none. */
export function changes(
  plan: Plan,
  from: Instant,
  to: Instant,
  screens?: ReadonlySet<string>,
  firings?: readonly Firing[],
): Change[] {
  const found = new Map<Instant, { screens: number; takeover: boolean }>();
  for (const [program, group] of shared(plan, screens, firings)) {
    const { segments } = forecast(program, from, to);
    segments.forEach((segment, i) => {
      const before = segments[i - 1];
      if (!before || (before.source === segment.source && before.id === segment.id)) return;
      const entry = found.get(segment.from) ?? { screens: 0, takeover: false };
      entry.screens += group.length;
      entry.takeover ||= segment.source === 'takeover';
      found.set(segment.from, entry);
    });
  }
  return [...found].map(([at, entry]) => ({ at, ...entry })).sort((a, b) => a.at - b.at);
}
