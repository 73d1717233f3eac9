'use client';

import { usePlanAgain } from '@/interface/data/queries';
import { GoingOut } from './going-out';

/** What changes on the screens if an earlier edition is published again. */
export function PublishAgain({
  number,
  newest,
  busy,
  onConfirm,
  onClose,
}: {
  number: number;
  newest: number;
  busy: boolean;
  onConfirm: (seen: number) => void;
  onClose: () => void;
}) {
  const { data, isError } = usePlanAgain(number, newest);
  return (
    <GoingOut
      title={`Publish edition ${number} again`}
      plan={data}
      failed={isError}
      confirm="Publish again"
      busy={busy}
      onConfirm={() => onConfirm(newest)}
      onClose={onClose}
    >
      <p className="text-sm text-faint">
        Your draft stays as it is. Takeovers in force and what is put on now stay on the screens.
      </p>
    </GoingOut>
  );
}
