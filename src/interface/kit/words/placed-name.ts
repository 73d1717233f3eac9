import type { Screen, Site } from '@/core/plan';

/** A screen with its site, since screens may share names: "Skerrow Pier · Staff room". Its id if the screen doesn't exist. */
export function placedName(
  { screens, sites }: { readonly screens: ReadonlyMap<string, Screen>; readonly sites: ReadonlyMap<string, Site> },
  id: string,
): string {
  const screen = screens.get(id);
  return screen ? `${sites.get(screen.site)?.name ?? ''} · ${screen.name}` : id;
}
