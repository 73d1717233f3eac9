'use client';

import { useState } from 'react';
import type { Booking } from '@/core/plan';
import { BookingForm } from '@/interface/booking/booking-form';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useTakeovers } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { Sheet } from '@/interface/kit/controls/sheet';
import { InForce } from './in-force';
import { FiringLog } from './firing-log';
import { PreparedRow } from './prepared-row';
import { isInForce, prepared } from './standing';
import { Word } from '@/interface/kit/words/word';

const BEGUN: Partial<Booking> = { takeover: true, onHold: true, priority: 5, wake: true };

/** Takeovers: prepared ones, which go ahead of everything; those in force; and those that were fired. */
export function TakeoversPlace() {
  const { draft } = useNetwork('draft');
  const { now } = useMoment();
  const known = useTakeovers();
  const [preparing, setPreparing] = useState(false);
  if (!known) return <p className="px-6 py-5 text-faint">Loading…</p>;
  const { firings, firers } = known;
  const on = firings.filter((one) => isInForce(one, now));
  const list = prepared(draft, firings, now);
  return (
    <div className="mx-auto max-w-4xl px-3 py-5 sm:px-6">
      <header className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl">
          <Word of="takeover">Takeovers</Word>
        </h1>
        <Button needs="plan" onClick={() => setPreparing(true)}>
          Prepare one
        </Button>
      </header>
      {on.map((one) => (
        <InForce key={one.id} firing={one} />
      ))}
      <section aria-labelledby="prepared" className="mt-6">
        <h2 id="prepared" className="text-lg">
          Prepared
        </h2>
        {list.length === 0 && on.some(({ drill }) => !drill) ? (
          <p className="mt-2 text-faint">All prepared takeovers are in force.</p>
        ) : list.length === 0 ? (
          <p className="mt-2 max-w-prose text-faint">
            A takeover goes ahead of everything on its screens. Prepare one for urgent messages: choose what it shows
            and where. Its files are kept on the players, so it shows within seconds when you activate it.
          </p>
        ) : (
          <ul className="mt-2">
            {list.map((booking) => (
              <PreparedRow key={booking.id} booking={booking} firers={firers[booking.id] ?? []} />
            ))}
          </ul>
        )}
      </section>
      <FiringLog firings={firings.filter((one) => !isInForce(one, now))} />
      <Sheet open={preparing} title="Prepare a takeover" onClose={() => setPreparing(false)}>
        <BookingForm booking={null} begun={BEGUN} onDone={() => setPreparing(false)} />
      </Sheet>
    </div>
  );
}
