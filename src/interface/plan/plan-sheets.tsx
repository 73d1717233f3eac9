'use client';

import type { Booking } from '@/core/plan';
import type { LocalDate } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { Sheet } from '@/interface/kit/controls/sheet';
import { BookingForm } from '@/interface/booking/booking-form';
import { CalendarsForm } from './calendars/calendars-form';
import { FeedsForm } from './calendars/feeds-form';
import { ImportForm } from './calendars/import-form';
import { CopyForm } from './copy-form';

/** What is done beside the bookings themselves. */
const ASIDES = ['copy', 'calendars', 'import', 'feeds'] as const;
export type Aside = (typeof ASIDES)[number];

export const isAside = (text: string | null): text is Aside => (ASIDES as readonly (string | null)[]).includes(text);

/** What the sheet over the place shows. */
export type Open =
  | { readonly kind: 'booking'; readonly id: string }
  | { readonly kind: 'new'; readonly begun: Partial<Booking> }
  | { readonly kind: Aside };

/** The sheets over the plan: one booking, a new one, or what is done beside them. */
export function PlanSheets({
  open,
  date,
  onOpen,
  onClose,
}: {
  open: Open | null;
  date: LocalDate;
  onOpen: (open: Open) => void;
  onClose: () => void;
}) {
  const { draft } = useNetwork('draft');
  const booking = open?.kind === 'booking' ? (draft.bookings.find((one) => one.id === open.id) ?? null) : null;
  const begun = open?.kind === 'new' ? open.begun : undefined;
  return (
    <>
      <Sheet open={open?.kind === 'new' || booking !== null} title={booking?.name ?? 'A new booking'} onClose={onClose}>
        <BookingForm
          key={booking?.id ?? 'new'}
          booking={booking}
          {...(begun ? { begun } : {})}
          onDuplicate={(copy) => onOpen({ kind: 'new', begun: copy })}
          onDone={onClose}
        />
      </Sheet>
      <Sheet open={open?.kind === 'copy'} title="Copy days" onClose={onClose}>
        <CopyForm date={date} onDone={onClose} />
      </Sheet>
      <Sheet open={open?.kind === 'calendars'} title="Calendars of dates" onClose={onClose}>
        <CalendarsForm />
      </Sheet>
      <Sheet open={open?.kind === 'import'} title="Bookings from a calendar file" onClose={onClose}>
        <ImportForm onDone={onClose} />
      </Sheet>
      <Sheet open={open?.kind === 'feeds'} title="Feeds for calendar programs" onClose={onClose}>
        <FeedsForm />
      </Sheet>
    </>
  );
}
