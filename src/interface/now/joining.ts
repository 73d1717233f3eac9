import type { Plan, Screen, Site } from '@/core/plan';

/** The sites and screens on Now. */
export interface Standing {
  readonly sites: readonly Site[];
  readonly screens: readonly Screen[];
  /** Ids of screens that no edition knows yet: they join with the next publication. */
  readonly joining: ReadonlySet<string>;
}

const NONE: ReadonlySet<string> = new Set();

/** What is looked at, and what was added to the draft since: it is there at once. `published` is null before the first edition. */
export function withJoining(looked: Plan, draft: Plan, published: Plan | null): Standing {
  if (!published) return { ...looked, joining: NONE };
  const known = new Set(published.screens.map(({ id }) => id));
  const joining = new Set(draft.screens.map(({ id }) => id).filter((id) => !known.has(id)));
  if (joining.size === 0) return { ...looked, joining };
  const here = new Set(looked.screens.map(({ id }) => id));
  const added = draft.screens.filter(({ id }) => joining.has(id) && !here.has(id));
  const at = new Set(looked.sites.map(({ id }) => id));
  const sites = draft.sites.filter(({ id }) => !at.has(id) && added.some(({ site }) => site === id));
  return { sites: [...looked.sites, ...sites], screens: [...looked.screens, ...added], joining };
}
