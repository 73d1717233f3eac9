'use client';

import { useState, type FormEvent } from 'react';
import type { Booking } from '@/core/plan';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch } from '@/interface/data/queries';
import { WhereField } from '@/interface/forms/where-field';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import { drillAction } from '@/web/actions';

/** Tries a takeover on some screens: the same content, marked as a drill on the glass, for minutes. */
export function DrillForm({ booking, onDone }: { booking: Booking; onDone: () => void }) {
  const { draft, notify } = useNetwork('draft', 'notify');
  const refetch = useRefetch('editions');
  const [where, setWhere] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const found = selectScreens(draft, where);
  const count = where.trim() !== '' && found.ok ? found.value.length : 0;
  const drill = async (event: FormEvent) => {
    event.preventDefault();
    if (busy || count === 0) return;
    setBusy(true);
    const result = await answered(drillAction(booking.id, where));
    setBusy(false);
    if (!result.ok) return setProblem(result.message);
    refetch();
    notify(`The drill is on ${counted(result.value.screens, 'screen')}, and says so there.`);
    onDone();
  };
  return (
    <form
      aria-label={`Drill of ${booking.name}`}
      onSubmit={(event) => void drill(event)}
      className="mt-2 max-w-lg border border-rule p-3"
    >
      <p className="mb-3 text-sm text-faint">
        It shows there with DRILL across it, for ten minutes at most. The takeover itself stays ready.
      </p>
      <WhereField
        plan={draft}
        value={where}
        error={problem ?? undefined}
        onChange={(next) => {
          setWhere(next);
          setProblem(null);
        }}
      />
      <div className="mt-3 flex gap-2">
        <Button type="submit" disabled={busy || count === 0}>
          {busy ? 'Beginning…' : `Drill on ${counted(count, 'screen')}`}
        </Button>
        <Button variant="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
