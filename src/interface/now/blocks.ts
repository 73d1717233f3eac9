import type { Screen, Site } from '@/core/plan';

/** A part of a street that is drawn as one: its first has the site's name. */
export interface Block {
  readonly key: string;
  readonly site: Site;
  /** Its screens, line by line. */
  readonly lines: readonly (readonly Screen[])[];
  readonly first: boolean;
  /** How many screens the whole street has. */
  readonly count: number;
  /** Its height in pixels: exact, so that nothing has to be measured during scrolling. */
  readonly height: number;
}

/** How tiles are drawn: the height of their pictures, and what stands around them, in pixels. */
export interface TileSize {
  readonly height: number;
  /** The least width of a tile. */
  readonly least: number;
  /** Under the picture. */
  readonly caption: number;
  readonly gap: number;
}

/** Height of a street's name, in pixels. */
export const HEADER = 54;
/** Few enough to be drawn within a frame during scrolling. */
const LARGEST_BLOCK = 12;

/** A tile's width: the screen's true aspect, at most three times as wide as high. */
export function tileWidth(screen: Pick<Screen, 'width' | 'height'>, size: TileSize): number {
  return Math.max(size.least, Math.min(size.height * 3, (size.height * screen.width) / screen.height));
}

/** Streets in blocks of a few lines, so that only the visible ones need to be drawn. `width` is what a line has. */
export function blocksOf(sites: readonly Site[], screens: readonly Screen[], size: TileSize, width: number): Block[] {
  const bySite = new Map<string, Screen[]>();
  for (const screen of screens) {
    const list = bySite.get(screen.site);
    if (list) list.push(screen);
    else bySite.set(screen.site, [screen]);
  }
  return sites.flatMap((site) => {
    const all = bySite.get(site.id) ?? [];
    const lines = linesOf(all, size, width);
    const blocks: Block[] = [];
    let held: Screen[][] = [];
    const close = () => {
      if (held.length === 0) return;
      const first = blocks.length === 0;
      const height = held.length * (size.height + size.caption + size.gap) + (first ? HEADER : 0);
      blocks.push({ key: `${site.id} ${blocks.length}`, site, lines: held, first, count: all.length, height });
      held = [];
    };
    for (const line of lines) {
      if (held.flat().length + line.length > LARGEST_BLOCK) close();
      held.push(line);
    }
    close();
    return blocks;
  });
}

function linesOf(screens: readonly Screen[], size: TileSize, width: number): Screen[][] {
  const lines: Screen[][] = [];
  let room = 0;
  for (const screen of screens) {
    const wide = tileWidth(screen, size);
    const line = lines.at(-1);
    if (line && room >= wide) line.push(screen);
    else {
      lines.push([screen]);
      room = width;
    }
    room -= wide + size.gap;
  }
  return lines;
}
