'use client';

import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { DAY, HOUR, type Change } from '@/core';
import { ask, useAnswer } from '@/interface/forecast/client';
import { useShownAt, type Shown } from './out-then';
import { useNetwork } from './provider';

/** The one instant that the whole interface looks at. */
interface MomentContext {
  readonly moment: number;
  /** Whether it moves along with the clock. */
  readonly isNow: boolean;
  readonly now: number;
  /** The plan that says what shows at the moment: for a past one, the edition that was out then. */
  readonly shown: Shown;
  /** Looks at another instant; null follows the clock again. */
  go(to: number | null): void;
  /** The changes around the moment, of the screens that are selected. */
  readonly changes: readonly Change[];
  step(direction: 1 | -1): void;
  /** Ids of the selected screens; changes are theirs alone while there are any. */
  readonly selected: ReadonlySet<string>;
  select(screens: ReadonlySet<string>): void;
}

const Context = createContext<MomentContext | null>(null);
const Go = createContext<MomentContext['go']>(() => undefined);

export function useMoment(): MomentContext {
  const context = useContext(Context);
  if (!context) throw new Error('useMoment stands outside MomentProvider');
  return context;
}

/** The way to another instant, for what is not to be drawn again each second. */
export const useGo = () => useContext(Go);

export function MomentProvider({ children }: { children: ReactNode }) {
  const { view, looking, seen, notify } = useNetwork('view', 'looking', 'seen', 'notify');
  const { serverNow } = view;
  const [offset] = useState(() => serverNow - Date.now());
  const [now, setNow] = useState(serverNow);
  const [chosen, setChosen] = useState<number | null>(null);
  const [selected, select] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now() + offset), 1000);
    return () => clearInterval(timer);
  }, [offset]);
  const moment = chosen ?? now;
  const shown = useShownAt(looking === 'published' && chosen !== null && chosen < now ? chosen : null);
  // While it is asked for what was out then, one steps by what is known.
  const plan = shown.by === 'asking' ? seen : shown.plan;

  // The range moves in whole hours, so that a passing second asks nothing anew.
  const hour = Math.floor(moment / HOUR) * HOUR;
  const askChanges = useCallback(
    () =>
      ask(plan, {
        kind: 'changes',
        from: hour - DAY,
        to: hour + 2 * DAY,
        ...(selected.size > 0 ? { screens: [...selected] } : {}),
      }),
    [plan, hour, selected],
  );
  const changes = useAnswer<readonly Change[]>(askChanges, [askChanges], []);

  /** Where the steps so far have led: quick ones take turns, each from where the one before arrived. */
  const reached = useRef(moment);
  useEffect(() => {
    reached.current = moment;
  }, [moment]);
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const step = useCallback(
    (direction: 1 | -1) => {
      turn.current = turn.current.then(async () => {
        // Asked again: what is drawn may still be the answer for another selection.
        const list = await askChanges().catch(() => null);
        if (!list) return notify('What changes could not be computed: try again.', true);
        const from = reached.current;
        const found = direction > 0 ? list.find(({ at }) => at > from) : list.findLast(({ at }) => at < from);
        if (!found)
          return notify(direction > 0 ? 'Nothing changes in the next two days.' : 'Nothing changed in the day before.');
        reached.current = found.at;
        setChosen(found.at);
      });
    },
    [askChanges, notify],
  );

  const value = useMemo<MomentContext>(
    () => ({
      moment,
      isNow: chosen === null,
      now,
      shown,
      go: setChosen,
      changes,
      selected,
      select,
      step,
    }),
    [moment, chosen, now, shown, changes, selected, step],
  );
  return (
    <Go value={setChosen}>
      <Context value={value}>{children}</Context>
    </Go>
  );
}
