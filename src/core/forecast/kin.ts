import type { Plan, Screen } from '../plan/schema';
import { namedTerms, screenTerms, selectorOf } from '../selector';

/** Screens that no selector of the plan can tell apart: they show the same, so they are computed once. */
export interface Kin {
  readonly screen: Screen;
  readonly terms: ReadonlySet<string>;
}

/** Ids of the screens that selectors call by name: these are kin to nobody. */
export function selectedByName(plan: Plan): string[] {
  const texts = [
    ...plan.bookings.map((booking) => booking.where),
    ...plan.playlists.flatMap((list) => list.items.flatMap((item) => item.where ?? [])),
  ];
  return [...new Set(texts)].flatMap((text) => namedTerms(selectorOf(text), 'screen:'));
}

/** The kinds of a plan's screens by key, and each screen's key. `named` are the screens that selectors call by name. */
export function kinOf(plan: Plan, named: ReadonlySet<string>): [Map<string, Kin>, Map<string, string>] {
  const siteTags = new Map(plan.sites.map((site) => [site.id, site.tags]));
  const kin = new Map<string, Kin>();
  const keyOf = new Map<string, string>();
  for (const screen of plan.screens) {
    const { id, site, tags, width, height, backdrop, lightsOut } = screen;
    const alike = [
      site,
      Math.sign(width - height),
      [...(tags ?? [])].sort(),
      backdrop ?? null,
      lightsOut ?? null,
      named.has(id) ? id : null,
    ];
    const key = JSON.stringify(alike);
    keyOf.set(id, key);
    if (!kin.has(key)) kin.set(key, { screen, terms: screenTerms(screen, siteTags.get(site)) });
  }
  return [kin, keyOf];
}
