import type { Screen, Site } from '@/core/plan';
import { parseSelector, screensMatching } from '@/core/selector';
import { searchable } from '@/core/text';

interface Places {
  readonly sites: readonly Site[];
  readonly screens: readonly Screen[];
}

/** The screens that a search means: those whose name or site is called so, and those that it selects as a selector. All for an empty one. */
export function findScreens(places: Places, search: string): readonly Screen[] {
  const text = searchable(search);
  if (text === '') return places.screens;
  const selector = parseSelector(search);
  const selected = new Set(selector.ok ? screensMatching(places, selector.value) : []);
  const sites = new Set(places.sites.filter(({ name }) => searchable(name).includes(text)).map(({ id }) => id));
  return places.screens.filter(
    (screen) => selected.has(screen) || sites.has(screen.site) || searchable(screen.name).includes(text),
  );
}
