import type { Fit } from '../plan/looks';
import { isShown } from '../plan/known';
import type { ShownMedia } from '../plan/kinds/media';
import type { Plan } from '../plan/schema';
import { never } from '../refusal';
import { programMaker } from './narrow';
import { screenGroups, selectedByName } from './screen-groups';

/** How pictures and films sit on screens of other sizes and shapes. */

/** From so many times on an enlarged picture looks soft: common practice, no source. */
export const ENLARGED_FROM = 1.25;
/** A part this small may be empty, cropped or stretched without a warning: common practice, no source. */
const BARELY = 0.03;

/** In pixels. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/** How large a picture is drawn on a screen, in the screen's pixels and about its middle: what is past the screen is cut off. */
export function drawnSize(file: Size, screen: Size, fit: Fit = 'whole'): Size {
  const [x, y] = [screen.width / file.width, screen.height / file.height];
  const scaled = (times: number) => ({ width: file.width * times, height: file.height * times });
  switch (fit) {
    case 'whole':
      return scaled(Math.min(x, y));
    case 'fill':
      return scaled(Math.max(x, y));
    case 'stretch':
      return { width: screen.width, height: screen.height };
    case 'exact':
      return scaled(1);
    default:
      return never(fit);
  }
}

/** How many times a picture is enlarged on a screen; under 1 it is reduced. Stretched, on the side where it is more. */
export const enlarged = (file: Size, screen: Size, fit: Fit = 'whole'): number => standingOf(file, screen, fit).scale;

/** How a picture fits on a screen. */
export interface Standing {
  /** Share of the screen that stays empty, 0 to 1. */
  readonly bars: number;
  /** Share of the picture that is out of sight, 0 to 1. */
  readonly cut: number;
  /** How much each pixel is enlarged (over 1) or reduced (under 1); where it is stretched, on the side where it is more. */
  readonly scale: number;
  /** How much more one side is enlarged than the other, from 1 on; 1 where it keeps its shape. */
  readonly stretched: number;
}

export function standingOf(file: Size, screen: Size, fit: Fit = 'whole'): Standing {
  const { width, height } = drawnSize(file, screen, fit);
  const seen = Math.min(width, screen.width) * Math.min(height, screen.height);
  const [x, y] = [width / file.width, height / file.height];
  return {
    bars: share(1 - seen / (screen.width * screen.height)),
    cut: share(1 - seen / (width * height)),
    scale: Math.max(x, y),
    stretched: fit === 'stretch' ? Math.max(x, y) / Math.min(x, y) : 1,
  };
}

/** A share too small to see counts as none. */
const share = (part: number) => (part < 0.005 ? 0 : part);

/** What is looked at in a picture that does not fit. */
const isMisfit = ({ bars, cut, scale, stretched }: Standing) =>
  bars > BARELY || cut > BARELY || stretched > 1 + BARELY || scale >= ENLARGED_FROM;

/** A file as some screens of one size show it, at any time. */
interface Seen {
  readonly file: ShownMedia;
  readonly fit: Fit;
  readonly size: Size;
  readonly screens: readonly string[];
}

/** What these screens show, or all of them; a file that a kind of screen shows twice in one way may come twice. */
function* seenOn(plan: Plan, only?: ReadonlySet<string>): Generator<Seen> {
  const [groups, keyOf] = screenGroups(plan, new Set(selectedByName(plan)));
  const sizes = new Map<string, Map<string, { size: Size; screens: string[] }>>();
  for (const { id, width, height } of plan.screens) {
    if (only && !only.has(id)) continue;
    const key = keyOf.get(id) ?? '';
    const alike = sizes.get(key) ?? new Map<string, { size: Size; screens: string[] }>();
    sizes.set(key, alike);
    const found = alike.get(`${width}x${height}`);
    if (found) found.screens.push(id);
    else alike.set(`${width}x${height}`, { size: { width, height }, screens: [id] });
  }
  const files = new Map(plan.media.flatMap((file) => (isShown(file) ? [[file.id, file] as const] : [])));
  const narrow = programMaker(plan);
  for (const [key, alike] of sizes)
    for (const { media, fit = 'whole' } of narrow(groups.get(key)?.screen.id ?? '').loops.flat()) {
      const file = media === undefined ? undefined : files.get(media);
      if (file) for (const { size, screens } of alike.values()) yield { file, fit, size, screens };
    }
}

/** The files that some screen shows enlarged past what looks good, at any time: by their ids, how many times at most. */
export function tooSmall(plan: Plan): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  for (const { file, size, fit } of seenOn(plan)) {
    const times = enlarged(file, size, fit);
    if (times >= ENLARGED_FROM && times > (found.get(file.id) ?? 0)) found.set(file.id, times);
  }
  return found;
}

/** A file that does not fit on some screens of one size. */
export interface Misfit {
  readonly media: string;
  readonly fit: Fit;
  readonly file: Size;
  /** The screens'. */
  readonly size: Size;
  readonly standing: Standing;
  /** Ids of the screens, sorted. */
  readonly screens: readonly string[];
}

/** What does not fit on these screens, by file, way of fitting and size; the most screens first. */
export function misfits(plan: Plan, screens: ReadonlySet<string>): Misfit[] {
  const found = new Map<string, Seen & { readonly ids: Set<string> }>();
  for (const seen of seenOn(plan, screens)) {
    const key = misfitKey(seen.file.id, seen);
    const known = found.get(key) ?? { ...seen, ids: new Set() };
    found.set(key, known);
    for (const id of seen.screens) known.ids.add(id);
  }
  const list = [...found.values()].flatMap(({ file, fit, size, ids }): Misfit[] => {
    const standing = standingOf(file, size, fit);
    const { width, height } = file;
    const found = { media: file.id, fit, file: { width, height }, size, standing, screens: [...ids].sort() };
    return isMisfit(standing) ? [found] : [];
  });
  return list.sort((a, b) => b.screens.length - a.screens.length || (a.media < b.media ? -1 : 1));
}

const misfitKey = (media: string, { fit, file, size }: Pick<Misfit, 'fit' | 'file' | 'size'>) =>
  JSON.stringify([media, fit, file.width, file.height, size.width, size.height]);

/** What of the ones is not among the others: a file may not fit on more screens than before. */
export function newMisfits(before: readonly Misfit[], after: readonly Misfit[]): Misfit[] {
  const known = new Map(before.map((one) => [misfitKey(one.media, one), new Set(one.screens)]));
  return after.flatMap((one) => {
    const screens = one.screens.filter((id) => !known.get(misfitKey(one.media, one))?.has(id));
    return screens.length > 0 ? [{ ...one, screens }] : [];
  });
}
