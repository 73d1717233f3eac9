import type { Screen, Site } from '@/core';

/** A screen with its site, as a person tells it from others of its name: "Skerrow Pier · Staff room". Its id where there is no such screen. */
export function placedName(
  { screens, sites }: { readonly screens: ReadonlyMap<string, Screen>; readonly sites: ReadonlyMap<string, Site> },
  id: string,
): string {
  const screen = screens.get(id);
  return screen ? `${sites.get(screen.site)?.name ?? ''} · ${screen.name}` : id;
}
