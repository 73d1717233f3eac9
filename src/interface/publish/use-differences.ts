'use client';

import { useEffect, useState } from 'react';
import { joinedGroups, type DifferenceGroup } from '@/core/edition';
import type { NamedPlan } from '@/interface/data/state';
import { ask } from '@/interface/forecast/client';

/** So many screens are compared at once: the first groups are there before the last screen is. */
const AT_ONCE = 100;

export interface Differences {
  readonly groups: readonly DifferenceGroup[];
  /** How many of the screens have been compared. */
  readonly compared: number;
}

const NONE: Differences = { groups: [], compared: 0 };

/** What looks different on some screens by one plan than by another, in `[from, to)`: as it is found. */
export function useDifferences(
  before: NamedPlan | null,
  after: NamedPlan,
  screens: readonly string[],
  [from, to]: readonly [number, number],
): Differences {
  const [found, setFound] = useState(NONE);
  const which = screens.join();
  useEffect(() => {
    let current = true;
    const compare = async () => {
      setFound(NONE);
      const ids = which === '' || !before ? [] : which.split(',');
      for (let done: Differences = NONE; done.compared < ids.length && before && current;) {
        const next = ids.slice(done.compared, done.compared + AT_ONCE);
        const question = { kind: 'differences', before: before.key, from, to, screens: next } as const;
        const groups = await ask(after, question, before);
        done = { groups: joinedGroups([...done.groups, ...groups]), compared: done.compared + next.length };
        if (current) setFound(done);
      }
    };
    compare().catch(reportError);
    return () => {
      current = false;
    };
  }, [before, after, which, from, to]);
  return found;
}
