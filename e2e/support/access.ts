import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** Every place, by what it is called and its path. */
export const PLACES: readonly (readonly [string, string])[] = [
  ['Now', '/'],
  ['Library', '/library'],
  ['a file', '/library/route-map'],
  ['Playlists', '/playlists'],
  ['a playlist', '/playlists/house'],
  ['Plan', '/plan'],
  ['Screens', '/screens'],
  ['Publish', '/publish'],
  ['Takeovers', '/takeovers'],
  ['People', '/people'],
  ['Network', '/network'],
];

/** What breaks WCAG 2.2 AA on a page, by axe-core. */
export async function violations(page: Page): Promise<string[]> {
  const { violations: found } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  return found.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.target.join(' ')} ${node.failureSummary ?? ''}`),
  );
}
