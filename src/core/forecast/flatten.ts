import { CONTENTS, knownContent, type Drawn } from '../plan/contents';
import { isShown, knownItem, type KnownItem } from '../plan/known';
import type { Content, Item, Media, Plan, When } from '../plan/schema';
import { Refusal, never } from '../refusal';
import { matches, mediaTerms, selectorOf } from '../selector';
import { isAlways } from '../when';
import { isShuffled, withoutProvenance, type Loop, type LoopItem, type Order } from './loop';
import type { ProgramMusic } from './program';

/** A content as a loop of what is drawn: nested playlists and collecting rules written out, for the screens that bear some terms. */

const DEFAULT_DURATION_MS = 10_000;
/** Files of one loop, at most: what rules collect grows with the library, and no screen shows so many. */
const MOST_ITEMS = 50_000;

const tooLong = (name: string) => {
  const message = `The playlist “${name}” comes to more than ${MOST_ITEMS} files on one screen. Nest less, or give its collecting rules a limit.`;
  return new Refusal(422, message, [{ path: '', message }]);
};

/** What an item says of its files' turns. */
type ItemSettings = Pick<Item, 'durationMs' | 'clip' | 'transition' | 'fit' | 'volume'>;

type Look = Pick<ItemSettings, 'transition' | 'fit' | 'volume'>;

/** How what is shown looks where its item says nothing of it: what a zone says; and whether none of it is heard. */
export interface UsualLook extends Pick<ItemSettings, 'transition' | 'fit'> {
  readonly silent?: boolean | undefined;
}

const NOTHING_SAID: UsualLook = {};

/** How what is shown looks in its turn: what is said of it, without what is usual. */
function lookOf(own: Look, usual: UsualLook, durationMs: number) {
  const { transition = usual.transition, fit = usual.fit } = own;
  const volume = usual.silent ? undefined : own.volume;
  const ms = Math.min(transition?.ms ?? 0, Math.floor(durationMs / 2));
  return {
    ...(transition && transition.kind !== 'cut' && ms > 0 ? { transition: { kind: transition.kind, ms } } : {}),
    ...(fit !== undefined && fit !== 'whole' ? { fit } : {}),
    ...(volume ? { volume } : {}),
  };
}

/** A content as the items of one kind of screen. */
export interface Flat {
  readonly loop: Loop;
  /** How its passes are put in order; null where they are as listed. */
  readonly order: Order | null;
  /** What sounds beside it; null where nothing does. */
  readonly music: ProgramMusic | null;
}

/** What is to be flattened of a plan, looked up once: its files, playlists, layouts and bulletins, and what rules collect. */
export class Flattener {
  private readonly media: ReadonlyMap<string, Media>;
  private readonly playlists: ReadonlyMap<string, Plan['playlists'][number]>;
  readonly layouts: ReadonlyMap<string, Plan['layouts'][number]>;
  readonly bulletins: ReadonlyMap<string, Plan['bulletins'][number]>;
  private readonly collected = new Map<string, readonly Media[]>();

  constructor(private readonly plan: Plan) {
    this.media = new Map(plan.media.map((file) => [file.id, file]));
    this.playlists = new Map(plan.playlists.map((list) => [list.id, list]));
    this.layouts = new Map(plan.layouts.map((layout) => [layout.id, layout]));
    this.bulletins = new Map(plan.bulletins.map((bulletin) => [bulletin.id, bulletin]));
  }

  /** What screens with these terms see of a content. Throws a Refusal for a loop past all measure. */
  flat(content: Content, terms: ReadonlySet<string>): Flat {
    return this.made(content, terms, NOTHING_SAID, true);
  }

  /** The same; what waits for a key does so where it is shown for itself, and not in a zone. */
  private made(content: Content, terms: ReadonlySet<string>, usual: UsualLook, isAlone: boolean): Flat {
    const what = knownContent(content);
    if (what.kind === 'playlist') {
      const { loop, order } = this.list(what.id, terms, usual, false);
      const music = usual.silent ? null : this.music(what.id, terms);
      if (!isAlone || !this.playlists.get(what.id)?.waits) return { loop, order, music };
      return { loop: loop.map((item) => ({ ...item, stays: true })), order: null, music };
    }
    const turns = this.turnsOf(what, { durationMs: what.durationMs }, 0, usual, [], false);
    const loop = turns.map(([, turn]): LoopItem => (CONTENTS[what.kind].rounds ? turn : { ...turn, stays: true }));
    return { loop, order: null, music: null };
  }

  /** What screens with these terms see in a zone: its `when` is one of each of its items. */
  zone({ content, when, ...look }: Plan['layouts'][number]['zones'][number], terms: ReadonlySet<string>): Flat {
    if (!content) return { loop: [], order: null, music: null };
    const { fit, transition, sound } = look;
    const flat = this.made(content, terms, { fit, transition, silent: !sound }, false);
    if (!when || isAlways(when)) return flat;
    return { ...flat, loop: flat.loop.map((item) => ({ ...item, when: [when, ...item.when] })) };
  }

  /** What sounds beside a playlist's loop: nothing where no sound of its music is for these screens. */
  private music(playlistId: string, terms: ReadonlySet<string>): ProgramMusic | null {
    const { music } = this.playlists.get(playlistId) ?? {};
    if (!music || music.volume === 0) return null;
    const { loop, order } = this.list(music.playlist, terms, NOTHING_SAID, true);
    return loop.length === 0
      ? null
      : { loop: loop.map(withoutProvenance), ...(order ? { order } : {}), volume: music.volume };
  }

  /** What a playlist shows, with all that is nested; or its sounds, where these are `heard`. */
  private list(
    playlistId: string,
    terms: ReadonlySet<string>,
    usual: UsualLook,
    heard: boolean,
  ): Pick<Flat, 'loop' | 'order'> {
    const loop: LoopItem[] = [];
    const expand = (id: string, conditions: readonly When[], path: readonly string[], outer?: number): Order => {
      const { items = [], order, archived } = this.playlists.get(id) ?? {};
      const entries: [string, number | Order][] = [];
      for (const [place, item] of (archived ? [] : items).entries()) {
        if (item.where !== undefined && !matches(selectorOf(item.where), terms)) continue;
        const needed = item.when && !isAlways(item.when) ? [...conditions, item.when] : conditions;
        const what = knownItem(item);
        if (what.kind === 'playlist') {
          entries.push([`${place}`, expand(what.id, needed, [...path, what.id], outer ?? place)]);
          continue;
        }
        for (const [name, turn] of this.turnsOf(what, heard ? {} : item, place, usual, needed, heard))
          entries.push([name, loop.push({ ...turn, through: path, place: outer ?? place }) - 1]);
        if (loop.length > MOST_ITEMS) throw tooLong(this.playlists.get(playlistId)?.name ?? '');
      }
      return { playlist: id, shuffled: order === 'shuffled', entries };
    };
    const order = expand(playlistId, [], [playlistId]);
    return { loop, order: isShuffled(order) ? order : null };
  }

  /** The turns of an item other than a playlist, each with its name among the entries of its own. */
  private turnsOf(
    what: Exclude<KnownItem, { kind: 'playlist' }>,
    said: ItemSettings,
    place: number,
    usual: UsualLook,
    conditions: readonly When[],
    heard: boolean,
  ): readonly (readonly [name: string, turn: LoopItem])[] {
    const ofFile = (file: Media) => this.turn(file, said, usual, conditions);
    switch (what.kind) {
      case 'media': {
        const file = this.media.get(what.id);
        return isWanted(file, heard) ? [[`${place}`, ofFile(file)]] : [];
      }
      case 'collect':
        return this.collect(what.rule, what.order, what.limit, heard).map((file, i) => [`${place}.${i}`, ofFile(file)]);
      case 'layout':
        return heard
          ? []
          : [[`${place}`, this.drawn({ layout: what.id }, this.layouts.get(what.id), said, usual, conditions)]];
      case 'bulletin':
        return heard
          ? []
          : [[`${place}`, this.drawn({ bulletin: what.id }, this.bulletins.get(what.id), said, usual, conditions)]];
      case 'input':
        return heard ? [] : [[`${place}`, this.drawn({ input: what.id }, undefined, said, usual, conditions)]];
      default:
        return never(what);
    }
  }

  private collect(rule: string, order: 'name' | 'newest' | 'oldest', limit: number, heard: boolean): readonly Media[] {
    const key = `${heard}\n${order}\n${rule}`;
    let found = this.collected.get(key);
    if (!found) {
      const selector = selectorOf(rule);
      found = this.plan.media
        .filter((file) => isWanted(file, heard) && matches(selector, mediaTerms(file)))
        .sort(mediaOrder(order));
      this.collected.set(key, found);
    }
    return found.slice(0, limit);
  }

  /** A turn of what isn't a file, by what an item says of it: for its own time, or that of what it shows, or what is usual. */
  private drawn(
    what: Drawn,
    shown: { readonly durationMs?: number | undefined } | undefined,
    said: ItemSettings,
    usual: UsualLook,
    conditions: readonly When[],
  ): LoopItem {
    const durationMs = said.durationMs ?? shown?.durationMs ?? this.usualMs;
    return { ...what, durationMs, when: conditions, ...lookOf(said, usual, durationMs) };
  }

  private get usualMs(): number {
    return this.plan.network.defaultDurationMs ?? DEFAULT_DURATION_MS;
  }

  /** A file's turn by what an item says of it. */
  private turn(
    file: Media,
    { durationMs: own, clip, ...look }: ItemSettings,
    usual: UsualLook,
    conditions: readonly When[],
  ): LoopItem {
    const durationMs = (clip && clip[1] - clip[0]) ?? own ?? file.durationMs ?? this.usualMs;
    return {
      media: file.id,
      ...(clip && clip[0] > 0 ? { fromMs: clip[0] } : {}),
      durationMs,
      when: file.when && !isAlways(file.when) ? [...conditions, file.when] : conditions,
      ...(isShown(file) ? lookOf(look, usual, durationMs) : {}),
    };
  }
}

/** Whether a file is there, and is one of those that are seen; or of those that are heard. */
const isWanted = (file: Media | undefined, heard: boolean): file is Media =>
  file !== undefined && !file.archived && isShown(file) !== heard;

/** How a collecting rule puts its files in order. */
export function mediaOrder(order: 'name' | 'newest' | 'oldest'): (a: Media, b: Media) => number {
  const byCodeUnit = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  return (a, b) => {
    const first =
      order === 'name'
        ? byCodeUnit(a.name, b.name)
        : (Date.parse(a.added) - Date.parse(b.added)) * (order === 'newest' ? -1 : 1);
    return first || byCodeUnit(a.id, b.id);
  };
}
