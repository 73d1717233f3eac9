'use client';

import { useEffect, useRef } from 'react';
import { usePlanned } from '@/interface/data/planned';
import { useNetwork } from '@/interface/data/provider';

/** Tells, wherever one is, that what is tried on some screens was stopped, and why: once, as it happens. */
export function PilotNotice() {
  const { notify } = useNetwork('notify');
  const planned = usePlanned();
  const ran = useRef<ReadonlySet<string>>(new Set());
  useEffect(() => {
    for (const { pilot } of planned)
      if (pilot?.stopped && ran.current.has(pilot.begun))
        notify(`What is tried was stopped: ${pilot.stopped.why}`, true);
    // By when it was begun: what goes out meanwhile gives it another id.
    ran.current = new Set(planned.flatMap(({ pilot }) => (pilot && !pilot.stopped ? [pilot.begun] : [])));
  }, [planned, notify]);
  return null;
}
