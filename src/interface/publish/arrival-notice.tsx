'use client';

import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useArrivals } from '@/interface/data/queries';
import { placedName } from '@/interface/kit/words/placed-name';
import { reachedOf } from './arrival';
import { follow, followedText, onFollowed, wordOf, type Followed } from './arriving';

/** Tells the person who published, on whatever place they are, that the edition has arrived or hasn't. */
export function ArrivalNotice() {
  const text = useSyncExternalStore(onFollowed, followedText, () => null);
  return text ? <Waiting followed={JSON.parse(text) as Followed} /> : null;
}

function Waiting({ followed }: { followed: Followed }) {
  const { statuses, published, notice, notify, draft } = useNetwork(
    'statuses',
    'published',
    'notice',
    'notify',
    'draft',
  );
  // Each second: time alone may be what is to be told.
  const { now } = useMoment();
  const index = useIndex(draft);
  const reached = useMemo(() => reachedOf(statuses), [statuses]);
  const arrivals = useArrivals(followed.number, reached);
  const isOver = published !== null && published.number > followed.number;
  useEffect(() => {
    // Another edition went out since: of this one nothing more is to be told.
    if (isOver) return follow(null);
    // What is being read is not covered.
    if (notice || !arrivals) return;
    const nameOf = (id: string) => placedName(index, id);
    const word = wordOf(followed, arrivals, statuses, nameOf, Date.now());
    if (!word) return;
    follow(null);
    if (word !== 'over') notify(word.text, word.bad);
  }, [isOver, notice, arrivals, index, followed, statuses, now, notify]);
  return null;
}
