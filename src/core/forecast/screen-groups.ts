import type { Plan, Screen } from '../plan/schema';
import { namedTerms, screenTerms, selectorOf } from '../selector';

/** Screens that no selector of the plan can tell apart: they show the same, so they are computed once. */
export interface ScreenGroup {
  readonly screen: Screen;
  readonly terms: ReadonlySet<string>;
}

/** Ids of the screens that selectors call by name: each of these stands alone. */
export const selectedByName = (plan: Plan): string[] =>
  selectorsIn(plan).flatMap((text) => namedTerms(selectorOf(text), 'screen:'));

/** Every selector of screens in a plan, each once. */
export const selectorsIn = (plan: Plan): string[] => [
  ...new Set([
    ...plan.bookings.map((booking) => booking.where),
    ...plan.playlists.flatMap((list) => list.items.flatMap((item) => item.where ?? [])),
    ...plan.layouts.flatMap((layout) =>
      layout.zones.flatMap((zone) => [zone.where, zone.touch?.where].flatMap((where) => where ?? [])),
    ),
  ]),
];

/** The kinds of a plan's screens by key, and each screen's key. `named` are the screens that selectors call by name. */
export function screenGroups(plan: Plan, named: ReadonlySet<string>): [Map<string, ScreenGroup>, Map<string, string>] {
  const siteTags = new Map(plan.sites.map((site) => [site.id, site.tags]));
  const groups = new Map<string, ScreenGroup>();
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
    if (!groups.has(key)) groups.set(key, { screen, terms: screenTerms(screen, siteTags.get(site)) });
  }
  return [groups, keyOf];
}
