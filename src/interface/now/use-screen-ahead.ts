'use client';

import { useMemo } from 'react';
import type { Board, Explanation } from '@/core/forecast';
import type { Media } from '@/core/plan';
import { useMoment } from '@/interface/data/moment';
import { useIndex } from '@/interface/data/provider';
import { useFirings } from '@/interface/data/queries';
import { ask, useAnswer } from '@/interface/forecast/client';
import { nextDay, type DayPart } from './next-ahead';
import { useGlances } from './use-glances';

const NONE: readonly string[] = [];
const NONE_ABOVE: readonly Board[] = [];
/** So many changes of the next day are listed. */
const MOST = 14;

/** What one screen shows at the moment that is looked at, why, and what its next day brings. */
export interface ScreenAhead {
  /** Whether the plan that is looked at has the screen. */
  readonly known: boolean;
  readonly media: Media | undefined;
  /** What is on where it isn't a file. */
  readonly board: Board | undefined;
  /** What is drawn above it, the lowest first. */
  readonly above: readonly Board[];
  readonly reasons: Explanation | null;
  readonly coming: readonly DayPart[];
}

export function useScreenAhead(screen: string): ScreenAhead {
  const { moment, shownOf, laterOf } = useMoment();
  const { plan: seen } = shownOf(screen);
  const index = useIndex(seen.plan);
  const own = useMemo(() => (index.screens.has(screen) ? [screen] : NONE), [index, screen]);
  const glance = useGlances(own).get(screen);
  const known = index.screens.has(screen);
  const firings = useFirings();
  const minute = Math.floor(moment / 10_000);
  const reasons = useAnswer<Explanation | null>(
    async () => (known ? ask(seen, { kind: 'why', screen, at: moment, firings }) : null),
    [known, seen.key, screen, minute, glance, firings],
    null,
  );
  const later = laterOf(screen);
  const day = useAnswer<readonly DayPart[]>(
    async () =>
      known
        ? nextDay(moment, seen, later, (plan, from, to) => ask(plan, { kind: 'segments', screen, from, to, firings }))
        : [],
    [known, seen.key, screen, minute, firings, later.map(({ at, plan }) => `${plan?.key ?? ''} ${at}`).join()],
    [],
  );
  // Days of a backdrop that merely follow on each other are one line.
  const coming = day
    .filter(({ segment }, i) => {
      const before = day[i - 1]?.segment;
      return segment.source !== before?.source || segment.id !== before.id;
    })
    .slice(0, MOST);
  const media = glance?.media ? index.media.get(glance.media) : undefined;
  return { known, media, board: glance?.board, above: glance?.above ?? NONE_ABOVE, reasons, coming };
}
