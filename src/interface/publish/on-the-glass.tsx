'use client';

import type { ObjectKey } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { counted } from '@/interface/kit/words/format';
import { Comparison, Names, useScreenLabels } from './comparison';
import { usePlanOf } from './use-plan-of';

/** What looks different on the screens that receive another program: with all changes, or with a choice of them. */
export function OnTheGlass({
  screens,
  chosen,
}: {
  screens: readonly string[];
  /** Null for all changes. */
  chosen: readonly ObjectKey[] | null;
}) {
  const { draft, published } = useNetwork('draft', 'published');
  const after = usePlanOf(chosen);
  const label = useScreenLabels(published, after);
  const untouched = draft.screens.filter(({ id }) => !screens.includes(id)).length;
  if (screens.length === 0) return <p className="mt-4 text-faint">This changes no screens.</p>;
  if (!published)
    return (
      <p className="mt-4">
        {counted(screens.length, 'screen')} will receive the first edition: <Names ids={screens} label={label} />.
      </p>
    );
  return (
    <Comparison
      name="On the screens"
      before={published}
      after={after}
      screens={screens}
      sameWords={(count) =>
        `${counted(count, 'screen')} ${count === 1 ? 'receives' : 'receive'} the edition and ${count === 1 ? 'shows' : 'show'} the same in this time`
      }
    >
      {untouched > 0 && (
        <p className="mt-1 text-sm text-faint">
          {counted(untouched, 'other screen')} {untouched === 1 ? 'is' : 'are'} not touched.
        </p>
      )}
    </Comparison>
  );
}
