'use client';

import type { Booking } from '@/core/plan';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch } from '@/interface/data/queries';
import { ChoosePeople } from '@/interface/people/choose-people';
import { setFirersAction } from '@/web/actions';

/** Who may fire, drill and clear a takeover; if no one is chosen, everybody may. */
export function Firers({
  booking,
  firers,
  onDone,
}: {
  booking: Booking;
  firers: readonly string[];
  onDone: () => void;
}) {
  const { notify } = useNetwork('notify');
  const refetch = useRefetch('editions');
  return (
    <fieldset className="mt-2 max-w-lg border border-rule p-3">
      <legend className="px-1 text-sm font-semibold">Who may activate {booking.name}</legend>
      <ChoosePeople
        before={firers}
        save={async (chosen) => {
          const result = await answered(setFirersAction(booking.id, chosen));
          if (!result.ok) return result;
          refetch();
          notify(
            chosen.length === 0
              ? 'Everyone whose role allows it may activate it.'
              : 'Only these people may activate it.',
          );
          onDone();
          return result;
        }}
        onCancel={onDone}
      >
        If you choose no one, everyone whose role allows it may activate it. If you choose people, only they may
        activate or change it.
      </ChoosePeople>
    </fieldset>
  );
}
