'use client';

import { Fragment } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { NETWORK_ID } from '@/core/plan';
import { done, misread, type Result } from '@/core/refusal';
import { answered } from '@/interface/data/answered';
import { useKept } from '@/interface/data/queries';
import { SavedInput } from '@/interface/forms/saved-input';
import { keepAction } from '@/web/actions';

const whole = (text: string): Result<number> =>
  /^\d{1,6}$/.test(text.trim()) ? done(Number(text)) : misread('Write a whole number.');

const FIELDS = [
  ['editions', 'The newest', 'editions'],
  ['days', 'And all of the last', 'days'],
  ['pictures', 'Pictures of each screen', 'pictures'],
  ['pictureDays', 'But for no longer than', 'days'],
] as const;

/** How long old editions and replaced files are kept. Not part of the plan: it takes effect at once, and is never in the docket. */
export function KeptFor() {
  const kept = useKept();
  const queries = useQueryClient();
  if (!kept) return null;
  const save = async (input: Parameters<typeof keepAction>[0]): Promise<Result<unknown>> => {
    const result = await answered(keepAction(input));
    if (result.ok) queries.setQueryData(['editions', 'kept'], result.value);
    return result;
  };
  return (
    <section aria-label="How long we keep things" className="mt-8 border-t border-rule pt-5">
      <h2 className="text-lg">How long we keep things</h2>
      <p className="mt-1 text-faint">
        Editions that you can publish again, with their files, and replaced versions of files; and pictures of what
        screens showed. Older ones are deleted within a day. A change here takes effect at once.
      </p>
      <dl className="mt-4 grid items-baseline gap-x-8 gap-y-4 sm:grid-cols-[11rem_1fr]">
        {FIELDS.map(([field, label, unit]) => (
          <Fragment key={field}>
            <dt className="font-semibold">{label}</dt>
            <dd>
              <SavedInput
                label={`${label}: how many ${unit}`}
                of={{ kind: 'network', id: NETWORK_ID, field: `kept ${field}` }}
                inputMode="decimal"
                value={String(kept[field])}
                read={whole}
                save={(count) => save({ [field]: count })}
                width="w-48"
                className="text-right font-code"
              >
                <span className="w-16 shrink-0">{unit}</span>
              </SavedInput>
            </dd>
          </Fragment>
        ))}
      </dl>
    </section>
  );
}
