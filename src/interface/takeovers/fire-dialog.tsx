'use client';

import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from '@headlessui/react';
import { useRef, useState } from 'react';
import { durationWords, type Booking } from '@/core/plan';
import { screensMatching, selectorOf } from '@/core/selector';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import { fireAction } from '@/web/actions';
import { reachOf, reachSentences } from './standing';

/** The one confirmation before a takeover is fired: what will happen, in numbers. */
export function FireDialog({ booking, onClose }: { booking: Booking; onClose: () => void }) {
  const { published, statuses, notify } = useNetwork('published', 'statuses', 'notify');
  const refetch = useRefetch('editions');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const confirm = useRef<HTMLButtonElement>(null);
  const { id, name, where, prepared, wake } = booking;
  const reach = published && reachOf(published.plan, where, statuses);
  const resting = published
    ? screensMatching(published.plan, selectorOf(where)).filter(
        (screen) => statuses.get(screen.id)?.state === 'resting',
      ).length
    : 0;
  const fire = async () => {
    setBusy(true);
    const result = await answered(fireAction(id));
    setBusy(false);
    if (!result.ok) return setProblem(result.message);
    refetch();
    notify(`“${name}” is in force on ${counted(result.value.screens, 'screen')}.`);
    onClose();
  };
  const lasts =
    prepared?.lasts === undefined
      ? 'until you give the all-clear'
      : `for ${durationWords(prepared.lasts)}, or until the all-clear`;
  return (
    <Dialog open onClose={onClose} initialFocus={confirm} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-[rgb(0_0_0/0.5)]" />
      <div className="fixed inset-0 flex items-end justify-center sm:items-center">
        <DialogPanel className="max-h-full w-full max-w-lg overflow-y-auto border-t-8 border-brick bg-paper p-5">
          <DialogTitle className="text-xl">Activate “{name}”?</DialogTitle>
          {prepared?.words && <p className="mt-2 border-l-4 border-brick pl-3">{prepared.words}</p>}
          <p className="mt-3">It goes ahead of everything, {lasts}.</p>
          <ul className="mt-1">
            {reach &&
              reachSentences(reach, wake === true, resting).map((sentence) => <li key={sentence}>{sentence}</li>)}
          </ul>
          {problem !== null && (
            <p role="alert" className="mt-3 text-brick">
              {problem}
            </p>
          )}
          <div className="mt-5 flex flex-wrap gap-3">
            <button
              ref={confirm}
              type="button"
              disabled={busy}
              onClick={() => void fire()}
              className="min-h-11 cut-small bg-brick px-6 py-2 text-lg font-semibold text-paper hover:opacity-90 max-sm:w-full"
            >
              {busy ? 'Activating…' : `Activate on ${counted(reach?.screens ?? 0, 'screen')}`}
            </button>
            <Button className="max-sm:min-h-11 max-sm:w-full" onClick={onClose}>
              Cancel
            </Button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
