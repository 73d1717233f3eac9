'use client';

import { useCallback, useMemo, useState } from 'react';
import { carried, copyOccasion, reschedule, scopesOf, type Rescheduling, type Scope } from '@/core/booking';
import type { Plan, Patch, Site } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { useHeld } from '@/interface/kit/page/use-held';
import type { Held } from './held';
import { layerOf, type Bar } from '../strata/layout';

/** A change that waits for one's word on which days it is for. */
export interface Choice {
  readonly bar: Bar;
  readonly change: Rescheduling;
  /** Where it was put down; absent where it is taken off. */
  readonly held?: Held;
  readonly scopes: readonly Scope[];
}

/** Carrying, stretching, copying and removing bars: by pointer or keys, the same steps. */
export function useGesture(plan: Plan, site: Pick<Site, 'timeZone'>, onDraw: (drawn: Held) => void) {
  const { edit, notify } = useNetwork('edit', 'notify');
  const { held, newest, hold } = useHeld<Held>();
  const [choice, setChoice] = useState<Choice | null>(null);
  const [looking, lookAt] = useState<Scope | null>(null);
  const stamp = useMemo(() => new Date().toISOString(), [plan]); // eslint-disable-line react-hooks/exhaustive-deps -- a new one for each plan

  const changeOf = useCallback(
    ({ bar, start, end, layer }: Held & { bar: Bar }): Rescheduling => ({
      ...carried(bar.booking, bar.localOccasion, start, end, site),
      ...(layer === bar.layer
        ? {}
        : layer === 'takeover'
          ? { takeover: true }
          : { priority: layer, ...(bar.layer === 'takeover' ? { takeover: false } : {}) }),
    }),
    [site],
  );

  const save = useCallback(
    async (edits: readonly Patch[], said: string) => {
      setChoice(null);
      lookAt(null);
      await edit(edits, said);
    },
    [edit],
  );

  const settle = useCallback(
    (bar: Bar, change: Rescheduling, scope: Scope) => {
      const edits = reschedule(plan, bar.booking, bar.localOccasion, change, scope, new Date().toISOString());
      if (!edits.ok) return notify(edits.message, true);
      void save(edits.value, `“${bar.booking.name}” is ${change.remove ? 'removed' : 'changed'}. Ctrl Z undoes it.`);
    },
    [plan, notify, save],
  );

  const offer = useCallback(
    (bar: Bar, change: Rescheduling, at?: Held) => {
      const scopes = scopesOf(plan, bar.booking, bar.localOccasion);
      if (scopes.length === 1 && scopes[0]) settle(bar, change, scopes[0]);
      else {
        setChoice({ bar, change, scopes, ...(at ? { held: at } : {}) });
        lookAt('this day');
      }
    },
    [plan, settle],
  );

  const putDown = useCallback(() => {
    const held = newest.current;
    if (!held) return;
    hold(null);
    const { bar } = held;
    if (!bar) return onDraw(held);
    const change = changeOf({ ...held, bar });
    if (held.copy)
      return void save(
        [copyOccasion(plan, bar.booking, bar.localOccasion, change, new Date().toISOString())],
        `“${bar.booking.name}” is copied. Ctrl Z undoes it.`,
      );
    const still =
      held.start === bar.localOccasion.start &&
      held.end === bar.localOccasion.end &&
      held.layer === layerOf(bar.booking);
    if (!still) offer(bar, change, held);
  }, [newest, hold, onDraw, changeOf, plan, save, offer]);

  /** What the plan would become, for looking ahead. */
  const preview = useMemo<readonly Patch[] | undefined>(() => {
    if (held?.bar) {
      const change = changeOf({ ...held, bar: held.bar });
      if (held.copy) return [copyOccasion(plan, held.bar.booking, held.bar.localOccasion, change, stamp)];
      const edits = reschedule(plan, held.bar.booking, held.bar.localOccasion, change, 'this day', stamp);
      return edits.ok ? edits.value : undefined;
    }
    if (choice) {
      const edits = reschedule(
        plan,
        choice.bar.booking,
        choice.bar.localOccasion,
        choice.change,
        looking ?? 'this day',
        stamp,
      );
      return edits.ok ? edits.value : undefined;
    }
    return undefined;
  }, [held, choice, looking, plan, changeOf, stamp]);

  return {
    held,
    choice,
    looking,
    preview,
    lookAt,
    hold,
    putDown,
    letGo: useCallback(() => {
      hold(null);
      setChoice(null);
      lookAt(null);
    }, [hold]),
    choose: useCallback((scope: Scope) => choice && settle(choice.bar, choice.change, scope), [choice, settle]),
    remove: useCallback((bar: Bar) => offer(bar, { remove: true }), [offer]),
    make: save,
  };
}

export type Gesture = ReturnType<typeof useGesture>;
