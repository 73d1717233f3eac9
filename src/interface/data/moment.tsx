'use client';

import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { Change } from '@/core/forecast';
import { DAY, HOUR, type Instant } from '@/core/instant';
import { ask, useAnswer } from '@/interface/forecast/client';
import { askEdition, useShownAt, type Looked } from './out-then';
import type { Question } from '@/interface/forecast/messages';
import { useAhead, usePlanned, type Ahead } from './planned';
import { useFirings } from './queries';
import { useNetwork } from './provider';
import { useServerClock } from './use-server-clock';
import { joined, lastFor, stepsOf, together, type SwitchStep } from './reaching';

/** The one instant that the whole interface looks at. */
interface MomentContext {
  readonly moment: number;
  /** Whether it moves along with the clock. */
  readonly isNow: boolean;
  readonly now: number;
  /** The plan that says what shows at the moment, of screens that no edition has reached which is not out everywhere. */
  readonly shown: Looked;
  /** The same of one screen: some may have an edition already that waits for others, at their sites or as pilots. */
  shownOf(screen: string): Looked;
  /** What takes over on a screen after the moment, as far as it is near: in order of time. */
  laterOf(screen: string): readonly Ahead[];
  /** Looks at another instant; null follows the clock again. */
  go(to: number | null): void;
  /** The number of the edition that is looked at whatever the moment; null where each moment has its own. */
  readonly edition: number | null;
  /** Looks at an edition at the moment, and at any that one goes to until one looks at now again; null ends that. */
  lookAtEdition(number: number | null): Promise<void>;
  /** The changes around the moment, of the screens that are selected. */
  readonly changes: readonly Change[];
  step(direction: 1 | -1): void;
  /** Ids of the selected screens; changes are theirs alone while there are any. */
  readonly selected: ReadonlySet<string>;
  select(screens: ReadonlySet<string>): void;
}

const Context = createContext<MomentContext | null>(null);
const Go = createContext<MomentContext['go']>(() => undefined);

const NOTHING: readonly SwitchStep[] = [];

export function useMoment(): MomentContext {
  const context = useContext(Context);
  if (!context) throw new Error('useMoment stands outside MomentProvider');
  return context;
}

/** The way to another instant, for what is not to be drawn again each second. */
export const useGo = () => useContext(Go);

export function MomentProvider({ children }: { children: ReactNode }) {
  const { view, looking, look, seen, notify } = useNetwork('view', 'looking', 'look', 'seen', 'notify');
  const { serverNow } = view;
  const now = useServerClock(serverNow);
  const [chosen, setChosen] = useState<number | null>(null);
  const [edition, setEdition] = useState<{ readonly number: number; readonly plan: Looked['plan'] } | null>(null);
  const [selected, select] = useState<ReadonlySet<string>>(new Set());
  const moment = chosen ?? now;
  const ofThen = useShownAt(looking === 'published' && !edition && chosen !== null && chosen < now ? chosen : null);
  const asked: Looked = edition && looking === 'published' ? { by: 'chosen', ...edition } : ofThen;
  // By what it says: it is made anew whenever anything is drawn.
  const says = JSON.stringify({ ...asked, plan: asked.plan.key });
  // eslint-disable-next-line react-hooks/exhaustive-deps -- a plan stands by its key
  const then = useMemo(() => asked, [says]);
  const firings = useFirings();
  const hour = Math.floor(moment / HOUR) * HOUR;
  const planned = usePlanned();
  const steps = useMemo(() => stepsOf(planned), [planned]);
  const takesOver = useAhead(looking === 'published' && !edition ? steps : NOTHING, hour + 2 * DAY);
  // By what it is made of: the list is made anew whenever anything is drawn.
  const madeOf = takesOver.map(({ id, at, plan, failed }) => `${id} ${at} ${plan?.key ?? ''} ${failed}`).join();
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the plans stand by their keys
  const ahead = useMemo(() => takesOver, [madeOf]);
  const count = ahead.filter(({ at }) => at <= moment).length;
  const begun = useMemo(() => ahead.slice(0, count), [ahead, count]);
  const later = useMemo(() => ahead.slice(count), [ahead, count]);
  const laterOf = useCallback(
    (screen: string) => later.filter(({ screens }) => screens === null || screens.has(screen)),
    [later],
  );
  const shownOf = useMemo(() => {
    const made = new Map<Ahead | undefined, Looked>([[undefined, then]]);
    return (step: Ahead | undefined): Looked => {
      const known = made.get(step);
      if (known) return known;
      const shown: Looked = step?.plan
        ? { by: 'planned', plan: step.plan, at: step.at }
        : { by: 'asking', plan: then.plan, failed: step?.failed ?? false };
      made.set(step, shown);
      return shown;
    };
  }, [then]);
  const shown = shownOf(begun.findLast(({ screens }) => screens === null));
  const shownOfScreen = useCallback((screen: string) => shownOf(lastFor(begun, screen)), [shownOf, begun]);

  // While it is asked for what was out then, one steps by what is known.
  const plan = then.by === 'asking' ? seen : then.plan;

  // The range moves in whole hours, so that a passing second asks nothing anew.
  const askChanges = useCallback(async () => {
    const [from, to] = [hour - DAY, hour + 2 * DAY];
    const touched = new Map(planned.map(({ id, screens }) => [id, new Set(screens)]));
    const everybody = new Set(
      [plan, ...ahead.flatMap((one) => one.plan ?? [])].flatMap((one) => one.plan.screens.map(({ id }) => id)),
    );
    const asked = selected.size > 0 ? [...selected] : [...everybody];
    // What takes over at an instant says what changes from then on; that it takes over is a change too.
    const groups = together(
      ahead.filter((one) => one.plan !== undefined && one.at < to),
      asked,
    ).map(async ({ screens, steps: own }) => {
      const parts: Part[] = [
        { plan, at: -Infinity, touched: 0 },
        ...own.map((one) => ({
          plan: one.plan ?? plan,
          at: one.at,
          touched: (screens ?? asked).filter(
            (screen) =>
              touched.get(one.id)?.has(screen) &&
              (one.screens === null || one.screens.has(screen)) &&
              !hasAlready(own, one, screen),
          ).length,
        })),
      ];
      const only = screens ?? (selected.size > 0 ? asked : null);
      return changesOf(parts, { from, to, firings, ...(only ? { screens: only } : {}) });
    });
    return joined(await Promise.all(groups));
  }, [plan, hour, selected, ahead, planned, firings]);
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
        if (!list) return notify('The changes couldn’t be computed. Try again.', true);
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

  const go = useCallback((to: number | null) => {
    setChosen(to);
    // What is on the glass now is by no other edition than the one that is out.
    if (to === null) setEdition(null);
  }, []);
  const lookAtEdition = useCallback(
    async (number: number | null) => {
      if (number === null) return setEdition(null);
      const plan = await askEdition(number).catch(() => null);
      if (!plan) return notify(`Edition ${number} couldn’t be loaded, or is no longer kept. Reload the page.`, true);
      setEdition({ number, plan });
      setChosen((at) => at ?? reached.current);
      look('published');
    },
    [look, notify],
  );
  const value = useMemo<MomentContext>(
    () => ({
      moment,
      isNow: chosen === null,
      now,
      shown,
      shownOf: shownOfScreen,
      laterOf,
      go,
      edition: edition?.number ?? null,
      lookAtEdition,
      changes,
      selected,
      select,
      step,
    }),
    [moment, chosen, now, shown, shownOfScreen, laterOf, go, edition, lookAtEdition, changes, selected, step],
  );
  return (
    <Go value={go}>
      <Context value={value}>{children}</Context>
    </Go>
  );
}

/** From an instant on, what says what shows, and on how many screens it takes over. */
interface Part {
  readonly plan: Looked['plan'];
  readonly at: Instant;
  readonly touched: number;
}

/** Whether an earlier step of the same edition was for a screen. */
const hasAlready = (steps: readonly SwitchStep[], step: SwitchStep, screen: string): boolean =>
  steps.slice(0, steps.indexOf(step)).some(({ id, screens }) => id === step.id && screens?.has(screen));

async function changesOf(
  parts: readonly Part[],
  { from, to, ...asked }: Omit<Extract<Question, { kind: 'changes' }>, 'kind'>,
): Promise<readonly Change[]> {
  const lists = await Promise.all(
    parts.map(async (part, i): Promise<readonly Change[]> => {
      const [begin, end] = [Math.max(from, part.at), Math.min(to, parts[i + 1]?.at ?? to)];
      const list = begin < end ? await ask(part.plan, { kind: 'changes', from: begin, to: end, ...asked }) : [];
      const takes = part.touched > 0 && part.at >= from;
      return takes
        ? [{ at: part.at, screens: part.touched, takeover: false }, ...list.filter(({ at }) => at > part.at)]
        : list;
    }),
  );
  return lists.flat();
}
