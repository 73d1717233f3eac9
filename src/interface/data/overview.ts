import type { OverviewNews, ScreenOverview } from '@/services/health';

/** What the players of all screens told, as the page has it. */
export interface Overview {
  readonly version: string;
  readonly screens: ReadonlyMap<string, ScreenOverview>;
}

/** An overview with what is new in it. News that follow another one than `before` are all there is. */
export function withNews(before: Overview | undefined, { version, from, rows, gone }: OverviewNews): Overview {
  if (before && from === before.version && rows.length === 0 && gone.length === 0) return before;
  const screens = new Map(before && from === before.version ? before.screens : []);
  for (const row of rows) screens.set(row.id, row);
  for (const id of gone) screens.delete(id);
  return { version, screens };
}
