'use client';

import { group } from 'd3-array';
import equal from 'fast-deep-equal';
import { useRef, useState } from 'react';
import type { KnownFiring } from '@/core/cues';
import type { Glance } from '@/core/forecast';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useFirings } from '@/interface/data/queries';
import type { NamedPlan } from '@/interface/data/state';
import { ask, useNewest } from '@/interface/forecast/client';
import { NextAhead, type SeenGlance } from './next-ahead';

type Glances = ReadonlyMap<string, Glance>;

/** What is known by one plan, and for which moments. */
interface Known {
  readonly from: number;
  readonly to: number;
  readonly glances: Glances;
}

/** By the keys of plans: screens that an edition has reached which is not out everywhere go by another than the others. */
type KnownByPlan = ReadonlyMap<string, Known>;

/**
 * What the given screens show at the moment, by id. A known answer is asked for again only when the moment leaves the time for which it
 * holds; screens that become visible are asked for alone, one question at a time.
 */
export function useGlances(screens: readonly string[]): ReadonlyMap<string, SeenGlance> {
  const { view, looking } = useNetwork('view', 'looking');
  const { glances, serverNow } = view;
  const { moment, shown, shownOf, laterOf } = useMoment();
  const [begun] = useState<Known>(() => ({
    from: serverNow,
    to: validUntil(glances),
    glances: new Map(glances.map((one) => [one.screen, one])),
  }));
  const firings = useFirings();
  const fired = useRef(firings);
  const known = useRef<KnownByPlan>(new Map(looking === 'published' ? [[shown.plan.key, begun]] : []));
  const [ahead] = useState(
    () => new NextAhead((plan, at, asked) => ask(plan, { kind: 'glances', at, screens: asked })),
  );
  const found = useNewest(async () => {
    // Something was fired: what is known holds no more.
    if (fired.current !== firings) known.current = new Map();
    fired.current = firings;
    const groups = group(screens, (screen) => shownOf(screen).plan);
    const next = await Promise.all(
      [...groups].map(async ([plan, ids]) => {
        const before = known.current.get(plan.key);
        return [plan.key, await learn(before, { plan, moment, screens: ids, firings })] as const;
      }),
    );
    known.current = new Map(next);
    const lists = next.map(([, one]) => one.glances);
    const [only] = lists;
    const all =
      only && lists.length === 1
        ? only
        : new Map([...groups].flatMap(([plan, ids]) => seenOf(known.current.get(plan.key), ids)));
    return ahead.of(all, moment, laterOf);
  }, [shownOf, laterOf, moment, screens, firings]);
  return found ?? begun.glances;
}

const seenOf = (known: Known | undefined, ids: readonly string[]) =>
  ids.flatMap((id) => {
    const glance = known?.glances.get(id);
    return glance ? [[id, glance] as const] : [];
  });

async function learn(
  known: Known | undefined,
  want: {
    plan: NamedPlan;
    moment: number;
    screens: readonly string[];
    firings: readonly KnownFiring[];
  },
): Promise<Known> {
  const { plan, moment, screens, firings } = want;
  const holds = known !== undefined && moment >= known.from && moment < known.to;
  const unknown = holds ? screens.filter((id) => !known.glances.has(id)) : screens;
  if (holds && unknown.length === 0) return known;
  const answer = await ask(plan, { kind: 'glances', at: moment, screens: unknown, firings });
  // What did not change stays the same object, so that only tiles that differ are drawn again.
  const glances = new Map(holds ? known.glances : []);
  for (const one of answer) {
    const before = known?.glances.get(one.screen);
    glances.set(one.screen, equal(before, one) && before ? before : one);
  }
  const to = Math.min(validUntil(answer), holds ? known.to : Infinity);
  return { from: moment, to, glances };
}

function validUntil(list: readonly Glance[]): number {
  return Math.min(Infinity, ...list.flatMap(({ until, next }) => [until ?? Infinity, next?.at ?? Infinity]));
}
