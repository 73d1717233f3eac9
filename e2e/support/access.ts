import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** Every place, by what it is called and its path. */
export const PLACES: readonly (readonly [string, string])[] = [
  ['Now', '/'],
  ['Library', '/library'],
  ['a file', '/library/route-map'],
  ['Playlists', '/playlists'],
  ['a playlist', '/playlists/house'],
  ['Layouts', '/layouts'],
  ['Plan', '/plan'],
  ['Screens', '/screens'],
  ['Pictures', '/screens/pictures'],
  ['Table of screens', '/screens/table'],
  ['Map of screens', '/screens/map'],
  ['Waiting players', '/screens/tray'],
  ['Profiles', '/screens/profiles'],
  ['the page of a screen', '/screens/ternholm-hall'],
  ['Publish', '/publish'],
  ['Boards', '/cues'],
  ['Takeovers', '/takeovers'],
  ['People', '/people'],
  ['Network', '/network'],
];

/** What breaks WCAG 2.2 AA on a page, by axe-core: by all its rules, or by some, where the others were asked of the same page before. */
export async function violations(page: Page, rules?: string[]): Promise<string[]> {
  const axe = new AxeBuilder({ page })
    // In the page itself, and told of what is wrong alone: else all that is right is sent through a second page, which takes far longer.
    .setLegacyMode()
    .options({ resultTypes: ['violations'] });
  const { violations: found } = await (
    rules ? axe.withRules(rules) : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  ).analyze();
  return found.flatMap(({ id, nodes }) =>
    nodes.map((node) => `${id}: ${node.target.join(' ')} ${node.failureSummary ?? ''}`),
  );
}
