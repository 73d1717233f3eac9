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
 * Tells, wherever one is, what becomes of an edition that waits, as it happens: that what is tried on some screens was stopped, and
 * why; and that one went out by itself, or by somebody else. How it arrives is told from then on.
 */
export function WaitingNotice() {
  const { notify, notice } = useNetwork('notify', 'notice');
  const zone = useZone();
  const planned = usePlanned();
  const before = useRef<readonly Planned[]>([]);
  const { refetch } = useEditions(false);
  /** What went out, until it is told. */
  const [out, setOut] = useState<{ readonly text: string; readonly number: number } | null>(null);
  useEffect(() => {
    // By when it was begun: what goes out meanwhile gives it another id.
    const ran = new Set(before.current.flatMap(({ pilot }) => (pilot && !pilot.stopped ? [pilot.begun] : [])));
    for (const { pilot } of planned)
      if (pilot?.stopped && ran.has(pilot.begun)) notify(`What is tried was stopped: ${pilot.stopped.why}`, true);
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
    // Who published it by hand was told so.
    if (text && (JSON.parse(text) as Followed).number >= out.number) return;
    follow({ number: out.number, since: Date.now() });
    notify(out.text);
  }, [out, notice, notify]);
  return null;
}
