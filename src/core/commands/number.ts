/** A screen's number at its site, from 1 in the order of the ids: it shows on the glass when the screen is identified, and in the interface. */
export function numberAtSite(
  screens: readonly { readonly id: string; readonly site: string }[],
  screen: { readonly id: string; readonly site: string },
): number {
  return 1 + screens.filter(({ id, site }) => site === screen.site && id < screen.id).length;
}
