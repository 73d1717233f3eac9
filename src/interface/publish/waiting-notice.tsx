'use client';

import { useEffect, useRef, useState } from 'react';
import { usePlanned } from '@/interface/data/planned';
import { useNetwork } from '@/interface/data/provider';
import { useEditions } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import type { Planned } from '@/services/editions';
import { follow, followedText, type Followed } from './arriving';
import { wentOutWords } from './went-out';

/**
 * Says on any place what happens to a waiting edition: that its pilot was stopped, and
 * why; or that it went out by itself or by another person. From then on its arrival is reported.
 */
export function WaitingNotice() {
  const { notify, notice } = useNetwork('notify', 'notice');
  const zone = useZone();
  const planned = usePlanned();
  const before = useRef<readonly Planned[]>([]);
  const { refetch } = useEditions(false);
  /** What went out, until it is reported. */
  const [out, setOut] = useState<{ readonly text: string; readonly number: number } | null>(null);
  useEffect(() => {
    // A pilot is known by when it began, because an edition published in between gives it another id.
    const ran = new Set(before.current.flatMap(({ pilot }) => (pilot && !pilot.stopped ? [pilot.begun] : [])));
    for (const { pilot } of planned)
      if (pilot?.stopped && ran.has(pilot.begun)) notify(`The pilot was stopped: ${pilot.stopped.why}`, true);
    const ids = new Set(planned.map(({ id }) => id));
    // Out, called off, or carried into another.
    const gone = before.current.filter(({ id }) => !ids.has(id));
    before.current = planned;
    if (gone.length === 0) return;
    void refetch().then(({ data = [] }) => {
      for (const one of gone) {
        const edition = data.find(({ id }) => id === one.id);
        if (edition) setOut({ text: wentOutWords(one, edition, zone), number: edition.number });
      }
    });
  }, [planned, notify, refetch, zone]);
  useEffect(() => {
    // What is being read is not covered.
    if (!out || notice) return;
    setOut(null);
    const text = followedText();
    // The person the person who published it by hand has seen a notice already.
    if (text && (JSON.parse(text) as Followed).number >= out.number) return;
    follow({ number: out.number, since: Date.now() });
    notify(out.text);
  }, [out, notice, notify]);
  return null;
}
