import type { Instant } from '../instant';
import { forecast } from '../forecast/forecast';
import type { LoopItem } from '../forecast/loop';
import type { ProgramDocument, ShownAsset } from '../edition/compile';

/** One picture that may be on the glass: a file, or black in lights-out hours. */
export type Look =
  | { readonly kind: 'black' }
  | {
      readonly kind: 'file';
      readonly media: string;
      readonly asset: ShownAsset;
      readonly fit: NonNullable<LoopItem['fit']>;
      /** How far into a video, in milliseconds; null for a picture. */
      readonly atMs: number | null;
    };

/** What may be on the glass at an instant. */
export interface Looks {
  /** In the order in which they show: the one that is due, and its neighbours where a change is near. */
  readonly looks: readonly Look[];
  /** The one that the forecast gives for the instant. Null if nothing is planned, or what can't be compared (a layout, a bulletin, an input). */
  readonly due: Look | null;
  /** Whether one gives way to another at this instant. */
  readonly changing: boolean;
}

/** A picture that was taken so long before or after a change may show either: a player's clock is exact to some tenths of a second. */
const SLACK_MS = 700;

/** What a program may show at an instant. */
export function looksAt(program: ProgramDocument, at: Instant): Looks {
  const { segments, plays } = forecast(program, at - SLACK_MS, at + SLACK_MS, { plays: true });
  // How a layout, a bulletin or an input looks isn't known here: nothing is compared near one.
  if (plays.some(({ media }) => media === undefined)) return { looks: [], due: null, changing: false };
  const files = plays.flatMap(({ media = '', ...play }) => {
    const asset = program.assets[media];
    if (!asset || asset.kind === 'sound') return [];
    const { fit = 'whole', transition } = program.loops[play.loop]?.[play.item] ?? {};
    const atMs = asset.kind === 'video' ? play.fromMs + Math.max(0, Math.min(at, play.to) - play.start) : null;
    const look: Look = { kind: 'file', media, asset, fit, atMs };
    const { from, to, start } = play;
    return [{ from, to, look, changesUntil: transition ? start + transition.ms + SLACK_MS : 0, start }];
  });
  const dark = segments.flatMap(({ source, from, to }) => (source === 'lights-out' ? [{ from, to, look: BLACK }] : []));
  const shown = [...files, ...dark].sort((a, b) => a.from - b.from);
  const due = shown.find(({ from, to }) => from <= at && at < to)?.look ?? null;
  // A transition that began before all this: what it began from is seen too.
  const begun = files.find(({ start, changesUntil }) => start < at - SLACK_MS && at < changesUntil);
  const before = begun ? looksAt(program, begun.start - 1 - SLACK_MS).due : null;
  const looks = [...(before ? [before] : []), ...shown.map(({ look }) => look)];
  return {
    looks,
    due,
    changing: looks.length > 1 && files.some(({ start, changesUntil }) => start - SLACK_MS <= at && at < changesUntil),
  };
}

const BLACK: Look = { kind: 'black' };
