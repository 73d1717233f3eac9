'use client';

import { useQueryClient } from '@tanstack/react-query';
import { NETWORK_ID } from '@/core/plan';
import { done, misread } from '@/core/refusal';
import { answered } from '@/interface/data/answered';
import { useMay } from '@/interface/data/may';
import { usePlayerPin } from '@/interface/data/queries';
import { SavedInput } from '@/interface/forms/saved-input';
import { playerPinAction } from '@/web/actions';

/** The PIN with which a person in front of a screen opens its player's own page. */
export function PlayerPin() {
  const may = useMay('operate');
  if (!may) return null;
  return <Pin />;
}

function Pin() {
  const pin = usePlayerPin();
  const queries = useQueryClient();
  if (pin === undefined) return null;
  return (
    <section aria-label="At the screen" className="mt-8 border-t border-rule pt-5">
      <h2 className="text-lg">At the screen</h2>
      <p className="mt-1 text-faint">
        Each player has a page of its own with its state, a test of its connection, and its edges. To open it, touch the
        four corners in turn from the top left, clockwise, or press ← ↑ → ↓ twice. Then type this PIN.
      </p>
      <dl className="mt-4 grid items-baseline gap-x-8 gap-y-4 sm:grid-cols-[11rem_1fr]">
        <dt className="font-semibold">
          PIN
          <span className="block text-sm font-normal text-faint">leave empty to keep the pages closed</span>
        </dt>
        <dd>
          <SavedInput
            label="PIN of the players’ own pages"
            of={{ kind: 'network', id: NETWORK_ID, field: 'player pin' }}
            inputMode="decimal"
            value={pin ?? ''}
            placeholder="4 to 8 digits"
            read={(text) => (/^(\d{4,8})?$/.test(text.trim()) ? done(text.trim()) : misread('Write 4 to 8 digits.'))}
            save={async (text) => {
              const result = await answered(playerPinAction(text === '' ? null : text));
              if (result.ok) queries.setQueryData(['player-pin'], { pin: result.value });
              return result;
            }}
            width="w-48"
            className="font-code"
          />
        </dd>
      </dl>
    </section>
  );
}
