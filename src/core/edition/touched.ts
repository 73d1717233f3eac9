import { knownContent, type ContentKind } from '../plan/contents';
import { knownItem } from '../plan/known';
import type { Content, Item, Plan, When } from '../plan/schema';
import { never } from '../refusal';
import { calendarsOf } from '../when/sets-of-hours';
import { matches, mediaTerms, screenTerms, selectorOf } from '../selector';

/**
 * The screens whose programs a change from one plan to another may alter: all others have the same program in both. The plans
 * share the objects that they have in common (`sharing`); what is not the same object counts as changed.
 */
export function touchedScreens(before: Plan, after: Plan): ReadonlySet<string> {
  const all = new Set([...before.screens, ...after.screens].map((screen) => screen.id));
  const touch = new Touch(before, after);
  if (before.network !== after.network || touch.content(after.network.backdrop)) return all;
  const touched = new Set<string>();
  const sites = new Set(changedOf(before.sites, after.sites).map((site) => site.id));
  for (const plan of [before, after])
    for (const site of plan.sites) if (touch.content(site.backdrop)) sites.add(site.id);
  for (const screen of changedOf(before.screens, after.screens)) touched.add(screen.id);
  const selectors = new Set<string>();
  for (const booking of changedOf(before.bookings, after.bookings)) selectors.add(booking.where);
  for (const booking of after.bookings)
    if (touch.content(booking.content) || touch.when(booking.when) || touch.cue(booking.cue))
      selectors.add(booking.where);
  const parsed = [...selectors].map(selectorOf);
  const siteTags = new Map(after.sites.map((site) => [site.id, site.tags]));
  for (const screen of after.screens) {
    const own = sites.has(screen.site) || touch.content(screen.backdrop) || screen.lightsOut?.some(touch.when);
    if (own) touched.add(screen.id);
    else if (parsed.length > 0 && !touched.has(screen.id)) {
      const terms = screenTerms(screen, siteTags.get(screen.site));
      if (parsed.some((selector) => matches(selector, terms))) touched.add(screen.id);
    }
  }
  return touched;
}

/** The entries of either list that are not in both, by their identity. */
function changedOf<T extends { readonly id: string }>(before: readonly T[], after: readonly T[]): T[] {
  if (before === after) return [];
  const [old, next] = [new Set(before), new Set(after)];
  return [...before.filter((one) => !next.has(one)), ...after.filter((one) => !old.has(one))];
}

/** What changed below bookings and backdrops: calendars, cues, files, bulletins, playlists, layouts, and what holds them. */
class Touch {
  private readonly calendars: ReadonlySet<string>;
  /** Cues that changed; where one with a number key did, all that have one: each program lists the keys of its screen. */
  private readonly cues: ReadonlySet<string>;
  private readonly contents: { readonly [K in ContentKind]: Set<string> };

  constructor(before: Plan, after: Plan) {
    const cues = changedOf(before.cues, after.cues);
    const keyed = cues.some(({ key }) => key !== undefined) ? after.cues.filter(({ key }) => key !== undefined) : [];
    this.cues = new Set([...cues, ...keyed].map((one) => one.id));
    this.calendars = new Set(changedOf(before.calendars, after.calendars).map((one) => one.id));
    const files = [
      ...changedOf(before.media, after.media),
      ...after.media.filter((file) => file.when && this.when(file.when)),
    ];
    const media = new Set(files.map((file) => file.id));
    const terms = files.map(mediaTerms);
    const lists = [...before.playlists, ...after.playlists];
    const playlist = new Set(changedOf(before.playlists, after.playlists).map((one) => one.id));
    const layouts = [...before.layouts, ...after.layouts];
    const layout = new Set(changedOf(before.layouts, after.layouts).map((one) => one.id));
    const bulletin = new Set(changedOf(before.bulletins, after.bulletins).map((one) => one.id));
    // The plan has no list of inputs: nothing of them changes.
    this.contents = { media, playlist, layout, bulletin, input: new Set() };
    for (const list of lists) {
      const own = list.items.some(
        (item) => (item.when !== undefined && this.when(item.when)) || this.item(item, terms),
      );
      if (own) playlist.add(list.id);
    }
    const holds = ({ kind, id }: ReturnType<typeof knownItem> & { id?: string }) =>
      kind !== 'collect' && this.contents[kind].has(id ?? '');
    for (let size = -1; size !== playlist.size + layout.size;) {
      size = playlist.size + layout.size;
      for (const list of lists)
        if (playlist.has(list.music?.playlist ?? '') || list.items.some((item) => holds(knownItem(item))))
          playlist.add(list.id);
      for (const { id, zones } of layouts)
        if (zones.some((zone) => this.content(zone.content) || (zone.when && this.when(zone.when)))) layout.add(id);
    }
  }

  readonly when = (when: When): boolean =>
    this.calendars.size > 0 && calendarsOf(when).some((id) => this.calendars.has(id));

  cue(id: string | undefined): boolean {
    return id !== undefined && this.cues.has(id);
  }

  content(content: Content | undefined): boolean {
    if (!content) return false;
    const { kind, id } = knownContent(content);
    return this.contents[kind].has(id);
  }

  /** Whether one of an item's own files changed; those of nested playlists come by their own. */
  private item(item: Item, changed: readonly ReadonlySet<string>[]): boolean {
    const what = knownItem(item);
    switch (what.kind) {
      case 'media':
        return this.contents.media.has(what.id);
      case 'collect':
        return changed.some((terms) => matches(selectorOf(what.rule), terms));
      case 'bulletin':
        return this.contents.bulletin.has(what.id);
      case 'playlist':
      case 'layout':
      case 'input':
        return false;
      default:
        return never(what);
    }
  }
}
