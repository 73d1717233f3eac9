'use client';

import { useEffect, useRef, useState } from 'react';
import type { LocalDate, OutcomeRow, PlanEdit } from '@/core';
import { ask, type NamedPlan } from '@/interface/forecast/client';

/**
 * What shows on the dates `first`..`last` with edits that are not made yet: null until it is known. While one drags, the
 * worker answers as fast as it can, and always the newest question.
 */
export function useOutcome(
  plan: NamedPlan,
  first: LocalDate,
  last: LocalDate,
  edits: readonly PlanEdit[] | undefined,
): readonly OutcomeRow[] | null {
  const [rows, setRows] = useState<readonly OutcomeRow[] | null>(null);
  const wanted = useRef<(() => Promise<readonly OutcomeRow[]>) | null>(null);
  const busy = useRef(false);
  const gone = useRef(false);
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
    };
  }, []);
  useEffect(() => {
    wanted.current = () => ask(plan, { kind: 'outcome', first, last, edits });
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      for (let work = wanted.current; work && !gone.current; work = wanted.current) {
        wanted.current = null;
        const answer = await work().catch(() => null);
        if (answer) setRows(answer);
      }
      busy.current = false;
    })();
  }, [plan, first, last, edits]);
  return rows;
}
