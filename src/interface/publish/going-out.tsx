'use client';

import { X } from 'lucide-react';
import { useEffect, useMemo, useRef, type ReactNode } from 'react';
import { useNetwork } from '@/interface/data/provider';
import type { NamedPlan } from '@/interface/data/state';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import { Comparison } from './comparison';

/** What an edition would change on the screens, shown before it goes out. One press publishes it; closing changes nothing. */
export function GoingOut({
  title,
  plan,
  failed,
  confirm,
  busy,
  onConfirm,
  onClose,
  children,
}: {
  title: string;
  /** The plan that screens would show; undefined until it is here. */
  plan: NamedPlan | undefined;
  failed: boolean;
  /** What the button says. */
  confirm: string;
  busy: boolean;
  onConfirm: () => void;
  onClose: () => void;
  children?: ReactNode;
}) {
  const { published: shown } = useNetwork('published');
  const box = useRef<HTMLElement>(null);
  // It opens above or beside the button that was pressed.
  useEffect(() => box.current?.focus(), []);
  const screens = useMemo(
    () => [...new Set([...(shown?.plan.screens ?? []), ...(plan?.plan.screens ?? [])].map(({ id }) => id))],
    [shown, plan],
  );
  return (
    <section ref={box} tabIndex={-1} aria-label={title} className="my-4 border border-rule p-4">
      <div className="flex items-start gap-2">
        <p className="font-semibold">{title}</p>
        <button type="button" aria-label="Close" onClick={onClose} className="ml-auto p-1 hover:text-tide">
          <X size={18} aria-hidden />
        </button>
      </div>
      {children}
      {failed ? (
        <p role="alert" className="mt-3 text-brick">
          The preview couldn’t be computed. Close this and try again.
        </p>
      ) : plan && shown ? (
        <Comparison
          name="What changes on the screens"
          before={shown}
          after={plan}
          screens={screens}
          sameWords={(count) => `${counted(count, 'screen')} ${count === 1 ? 'shows' : 'show'} the same in this time`}
        />
      ) : (
        <p className="mt-3 text-faint">Working out what changes…</p>
      )}
      <p className="sticky bottom-0 mt-4 flex flex-wrap gap-2 border-t border-rule bg-paper py-3">
        <Button variant="main" disabled={busy || !plan} onClick={onConfirm}>
          {confirm}
        </Button>
        <Button variant="quiet" onClick={onClose}>
          Cancel
        </Button>
      </p>
    </section>
  );
}
