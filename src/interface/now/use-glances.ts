'use client';

import { useEffect, useRef, useState } from 'react';
import type { Glance } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { ask } from '@/interface/forecast/client';

/** What every screen shows at the moment, by id. Asked anew only when the moment leaves the time for which it is known. */
export function useGlances(): ReadonlyMap<string, Glance> {
  const { seen, glances, serverNow, looking } = useNetwork();
  const { moment } = useMoment();
  const [found, setFound] = useState(() => byScreen(glances));
  const known = useRef({ key: looking === 'published' ? seen.key : '', from: serverNow, to: validUntil(glances) });
  useEffect(() => {
    const { key, from, to } = known.current;
    if (key === seen.key && moment >= from && moment < to) return;
    let current = true;
    void ask(seen, { kind: 'glances', at: moment }).then((answer) => {
      if (!current) return;
      known.current = { key: seen.key, from: moment, to: validUntil(answer) };
      setFound(byScreen(answer));
    });
    return () => {
      current = false;
    };
  }, [seen, moment]);
  return found;
}

const byScreen = (list: readonly Glance[]) => new Map(list.map((one) => [one.screen, one]));

function validUntil(list: readonly Glance[]): number {
  return Math.min(Infinity, ...list.flatMap(({ until, next }) => [until ?? Infinity, next?.at ?? Infinity]));
}
