'use client';

import { useEffect, useRef, useState } from 'react';
import type { Glance } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { ask } from '@/interface/forecast/client';

/** What the given screens show at the moment, by id. Asked anew only when the moment leaves the time for which it is known. */
export function useGlances(screens: readonly string[]): ReadonlyMap<string, Glance> {
  const { seen, glances, serverNow, looking } = useNetwork();
  const { moment } = useMoment();
  const [found, setFound] = useState(() => byScreen(glances));
  const known = useRef({
    key: looking === 'published' ? seen.key : '',
    from: serverNow,
    to: validUntil(glances),
    screens: new Set(glances.map((one) => one.screen)),
  });
  useEffect(() => {
    const now = known.current;
    const still = now.key === seen.key && moment >= now.from && moment < now.to;
    if (still && screens.every((id) => now.screens.has(id))) return;
    let current = true;
    void ask(seen, { kind: 'glances', at: moment, screens }).then((answer) => {
      if (!current) return;
      known.current = { key: seen.key, from: moment, to: validUntil(answer), screens: new Set(screens) };
      setFound(byScreen(answer));
    });
    return () => {
      current = false;
    };
  }, [seen, moment, screens]);
  return found;
}

const byScreen = (list: readonly Glance[]) => new Map(list.map((one) => [one.screen, one]));

function validUntil(list: readonly Glance[]): number {
  return Math.min(Infinity, ...list.flatMap(({ until, next }) => [until ?? Infinity, next?.at ?? Infinity]));
}
