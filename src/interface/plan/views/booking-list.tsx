'use client';

import { memo, useMemo } from 'react';
import { type Booking, NETWORK_ID, patchOf } from '@/core/plan';
import { selectorWithNames } from '@/core/selector';
import { describeWhen } from '@/core/when';
import { useNetwork, useThumbnails } from '@/interface/data/provider';
import { ContentPicker } from '@/interface/forms/content-picker';
import { contentName, contentOf, contentValue, firstMedia } from '@/interface/kit/content/content';
import { counted } from '@/interface/kit/words/format';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import { Thumb } from '@/interface/kit/content/thumb';
import { LAYERS, layerOf } from '../strata/layout';
import { Word } from '@/interface/kit/words/word';

/** Bookings as a list by layers: takeovers on top, then the priorities, the backdrop at the bottom. */
export const BookingList = memo(function BookingList({
  bookings,
  onOpen,
}: {
  bookings: readonly Booking[];
  onOpen: (booking: string) => void;
}) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const { network } = draft;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-3 pb-8 sm:px-6">
      {LAYERS.map((layer) => {
        const here = bookings.filter((one) => layerOf(one) === layer).sort((a, b) => a.name.localeCompare(b.name));
        if (here.length === 0) return null;
        return (
          <section
            key={layer}
            aria-label={layer === 'takeover' ? 'Takeovers' : `Priority ${layer}`}
            className="grid border-t border-rule md:grid-cols-[7rem_1fr]"
          >
            <h2 className="pt-3 text-base">{layer === 'takeover' ? 'Takeover' : <PriorityMark priority={layer} />}</h2>
            <ul>
              {here.map((one) => (
                <BookingRow key={one.id} booking={one} onOpen={() => onOpen(one.id)} />
              ))}
            </ul>
          </section>
        );
      })}
      <section
        aria-label="Backdrop"
        className="grid items-center gap-y-2 border-y border-rule py-3 md:grid-cols-[7rem_1fr]"
      >
        <h2 className="text-base">
          <Word of="backdrop">Backdrop</Word>
        </h2>
        <div className="flex flex-wrap items-center gap-3">
          <span className="text-faint">Where nothing is booked, unless the site or screen has its own:</span>
          <span className="w-64">
            <ContentPicker
              plan={draft}
              none="nothing, a plain card"
              aria-label="The network’s backdrop"
              value={contentValue(network.backdrop)}
              onChange={(value) => {
                const backdrop = contentOf(value);
                const patch = patchOf('network', NETWORK_ID, network, { ...network, backdrop });
                if (patch) void edit([patch]);
              }}
            />
          </span>
        </div>
      </section>
    </div>
  );
});

/** A priority as a height and a number. */
function PriorityMark({ priority }: { priority: number }) {
  return (
    <span className="flex items-end gap-2">
      <span aria-hidden className="w-2 bg-dusk" style={{ height: 4 + priority * 5 }} />
      <span>Priority {priority}</span>
    </span>
  );
}

function BookingRow({ booking, onOpen }: { booking: Booking; onOpen: () => void }) {
  const { draft } = useNetwork('draft');
  const thumbnail = useThumbnails();
  const found = useMemo(() => selectScreens(draft, booking.where), [draft, booking.where]);
  const { content } = booking;
  const file = firstMedia(draft, content);
  return (
    <li className="border-b border-rule/60 [contain-intrinsic-size:auto_4rem] [content-visibility:auto] last:border-b-0">
      <button
        type="button"
        data-booking={booking.id}
        onClick={onOpen}
        className={`grid w-full grid-cols-[5.5rem_minmax(0,1fr)] items-center gap-x-4 gap-y-1 py-2 text-left hover:bg-well lg:grid-cols-[5.5rem_15rem_minmax(0,1fr)_minmax(0,1fr)] max-lg:*:nth-[n+3]:col-start-2 ${booking.onHold ? 'text-faint' : ''}`}
      >
        <Thumb src={thumbnail(file)} alt="" className={`h-12 w-20 ${booking.onHold ? 'opacity-40' : ''}`} />
        <span>
          <span className="block font-semibold">{booking.name}</span>
          <span className="text-sm text-faint">{booking.onHold ? 'on hold' : contentName(content, draft)}</span>
        </span>
        <span>{describeWhen(booking.when)}</span>
        <span>
          <span className="block truncate">{selectorWithNames(booking.where, draft)}</span>
          <span className="text-sm text-faint">{found.ok ? counted(found.value.length, 'screen') : found.message}</span>
        </span>
      </button>
    </li>
  );
}
