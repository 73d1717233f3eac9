'use client';

import equal from 'fast-deep-equal';
import { useRef, useState } from 'react';
import type { Glance } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import type { NamedPlan } from '@/interface/data/state';
import { ask, useNewest } from '@/interface/forecast/client';

type Glances = ReadonlyMap<string, Glance>;

/** What is known, of which plan, and for which moments. */
interface Known {
  readonly key: string;
  readonly from: number;
  readonly to: number;
  readonly glances: Glances;
}

/**
 * What the given screens show at the moment, by id. What is known is asked anew only when the moment leaves the time for which it
 * holds; screens that come into sight are asked for alone, one question at a time.
 */
export function useGlances(screens: readonly string[]): Glances {
  const { view, looking } = useNetwork('view', 'looking');
  const { glances, serverNow } = view;
  const {
    moment,
    shown: { plan },
  } = useMoment();
  const [begun] = useState<Known>(() => ({
    key: looking === 'published' ? plan.key : '',
    from: serverNow,
    to: validUntil(glances),
    glances: new Map(glances.map((one) => [one.screen, one])),
  }));
  const known = useRef(begun);
  const found = useNewest(async () => {
    known.current = await learn(known.current, { plan, moment, screens });
    return known.current.glances;
  }, [plan, moment, screens]);
  return found ?? begun.glances;
}

async function learn(
  known: Known,
  want: { plan: NamedPlan; moment: number; screens: readonly string[] },
): Promise<Known> {
  const { plan, moment, screens } = want;
  const holds = known.key === plan.key && moment >= known.from && moment < known.to;
  const unknown = holds ? screens.filter((id) => !known.glances.has(id)) : screens;
  if (unknown.length === 0) return known;
  const answer = await ask(plan, { kind: 'glances', at: moment, screens: unknown });
  // What did not change stays the same object, so that only tiles that differ are drawn again.
  const glances = new Map(holds ? known.glances : []);
  for (const one of answer) {
    const before = known.glances.get(one.screen);
    glances.set(one.screen, equal(before, one) && before ? before : one);
  }
  const to = Math.min(validUntil(answer), holds ? known.to : Infinity);
  return { key: plan.key, from: moment, to, glances };
}

function validUntil(list: readonly Glance[]): number {
  return Math.min(Infinity, ...list.flatMap(({ until, next }) => [until ?? Infinity, next?.at ?? Infinity]));
}
