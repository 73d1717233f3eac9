'use client';

import { memo, useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import type { LocalOccasion } from '@/core/booking';
import type { Booking, Site } from '@/core/plan';
import { selectorWithNames } from '@/core/selector';
import { addDays, describeWhen, type LocalDate } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import { contentName } from '@/interface/kit/content/content';
import { LAYERS, layerName, layerOf } from '../strata/layout';
import { useSightings } from '../use-ahead';
import { clockSpan, dateWords } from '../site-clock-words';

interface PrintWeekProps {
  readonly bookings: readonly Booking[];
  readonly site: Site;
  readonly first: LocalDate;
}

/** One week on paper: only a printer sees it, and only for a printer it is made. */
export const PrintWeek = memo(function PrintWeek(props: PrintWeekProps) {
  const seen = useSightings(props.site, props.first, addDays(props.first, 6));
  const printing = usePrinting();
  if (!printing) return null;
  // Rather no week than an empty one.
  if (!seen) return <p className="hidden print:block">The week is still being computed. Print it again in a moment.</p>;
  return <Paper {...props} seen={seen} />;
});

/** Whether the page is being printed: told in time for what is drawn for it alone. */
function usePrinting(): boolean {
  const [printing, set] = useState(false);
  useEffect(() => {
    const query = matchMedia('print');
    const tell = (value: boolean) => () => flushSync(() => set(value));
    const [onBefore, onAfter] = [tell(true), tell(false)];
    const onChange = () => tell(query.matches)();
    query.addEventListener('change', onChange);
    window.addEventListener('beforeprint', onBefore);
    window.addEventListener('afterprint', onAfter);
    return () => {
      query.removeEventListener('change', onChange);
      window.removeEventListener('beforeprint', onBefore);
      window.removeEventListener('afterprint', onAfter);
    };
  }, []);
  return printing;
}

function Paper({ bookings, site, first, seen }: PrintWeekProps & { seen: readonly LocalOccasion[] }) {
  const { draft } = useNetwork('draft');
  const days = Array.from({ length: 7 }, (_, i) => addDays(first, i));
  const shown = bookings
    .filter((one) => !one.onHold && seen.some(({ booking }) => booking === one.id))
    .sort((a, b) => LAYERS.indexOf(layerOf(a)) - LAYERS.indexOf(layerOf(b)) || a.name.localeCompare(b.name));
  return (
    <div className="hidden bg-white text-black print:block" data-testid="print-week">
      <h1 className="text-xl">
        {draft.network.name}: {dateWords(first)} to {dateWords(addDays(first, 6))}
      </h1>
      <p className="text-sm">
        Times on each site&rsquo;s own clock, opening hours of {site.name}. Higher priorities are further up, and the
        highest one shows.
      </p>
      <table className="mt-3 w-full border-collapse text-[11px]">
        <thead>
          <tr>
            {['Booking', ...days.map(dateWords)].map((head) => (
              <th key={head} className="border border-black/50 px-1 py-0.5 text-left">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((booking) => {
            const found = selectScreens(draft, booking.where);
            return (
              <tr key={booking.id} className="break-inside-avoid align-top">
                <td className="border border-black/50 px-1 py-0.5">
                  <strong>{booking.name}</strong>, {layerName(layerOf(booking))}
                  <br />
                  {contentName(booking.content, draft)}; {selectorWithNames(booking.where, draft)}
                  {found.ok && ` (${found.value.length})`}
                  <br />
                  {describeWhen(booking.when)}
                </td>
                {days.map((day) => (
                  <td key={day} className="border border-black/50 px-1 py-0.5 font-code text-[9px]">
                    {seen
                      .filter((one) => one.booking === booking.id && one.date === day)
                      .map(({ window, start, end }) => (
                        <div key={window}>{clockSpan(start, end)}</div>
                      ))}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
