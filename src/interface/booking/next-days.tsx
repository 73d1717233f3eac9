'use client';

import { useMemo } from 'react';
import { localOccasions } from '@/core/booking';
import type { OutcomeSpan } from '@/core/forecast';
import type { Booking, Patch } from '@/core/plan';
import { addDays, dateOfLocalTime, toLocalTime, zoneTable, type LocalDate } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { counted } from '@/interface/kit/words/format';
import { whyNotWords } from './why-not';
import { timeScale } from '@/interface/plan/strata/scale';
import { useOutcome } from '@/interface/plan/use-ahead';
import { dateWords, spanWords } from '@/interface/plan/site-clock-words';

const DAYS = 7;
const WIDTH = 400;
/** Bars are placed in percent of the width. */
const WHOLE = 100;
const GROUPS = 6;

/** A booking's next seven days, as forecast with it: where it shows, and who is ahead of it where it waits. */
export function NextDays({
  booking,
  isNew,
  screens,
}: {
  booking: Booking;
  isNew: boolean;
  screens: readonly string[];
}) {
  const { draft } = useNetwork('draft');
  const { now } = useMoment();
  const index = useIndex(draft);
  const site = index.sites.get(index.screens.get(screens[0] ?? '')?.site ?? '');
  const first = dateOfLocalTime(toLocalTime(zoneTable(site?.timeZone ?? 'UTC'), now));
  const edits = useMemo<Patch[]>(() => {
    const { id, ...add } = booking;
    return isNew ? [{ kind: 'booking', add }] : [{ kind: 'booking', id, set: add }];
  }, [booking, isNew]);
  const last = addDays(first, DAYS - 1);
  const id = isNew ? 'new-0' : booking.id;
  const outcome = useOutcome(first, last, edits, booking.where, undefined, id);
  const rows = outcome?.rows;
  // Each row's own site has its clock and its opening hours.
  const wanted = useMemo(() => {
    const sites = new Set(screens.map((screen) => index.screens.get(screen)?.site ?? ''));
    return new Map(
      draft.sites
        .filter((one) => sites.has(one.id))
        .map((one) => [one.id, localOccasions(draft, [booking], one, first, last)]),
    );
  }, [draft, booking, index, screens, first, last]);
  const groups = rows ?? [];
  const shows = groups.filter((row) => row.spans.some((span) => span.id === id));
  const scale = timeScale(first, DAYS, WHOLE);
  if (screens.length === 0) return null;
  return (
    <section aria-label="Next seven days" className="border-t border-rule pt-4">
      <h3 className="text-base">Next seven days</h3>
      {outcome && (
        <p className="text-sm text-faint" data-testid="next-days">
          {outcome.whyNot
            ? whyNotWords(outcome.whyNot, booking, draft)
            : booking.weave
              ? 'It is mixed in with the items below. Its turns are counted under “On air” once it is saved.'
              : `It shows on ${counted(
                  shows.reduce((sum, row) => sum + row.screens.length, 0),
                  'screen',
                )} in these days.`}
        </p>
      )}
      <Days first={first} />
      {groups.slice(0, GROUPS).map((row) => (
        <div key={row.screens[0]} className="flex items-center gap-2">
          <span
            className="w-28 shrink-0 truncate text-xs text-faint"
            title={row.screens.map((one) => index.screens.get(one)?.name).join(', ')}
          >
            {row.screens.length > 1
              ? counted(row.screens.length, 'screen')
              : index.screens.get(row.screens[0] ?? '')?.name}
          </span>
          <span className="relative h-4 min-w-0 flex-1 bg-well/60" style={{ maxWidth: WIDTH }}>
            {(wanted.get(index.screens.get(row.screens[0] ?? '')?.site ?? '') ?? []).map(({ start, end }) => (
              <span
                key={start}
                className="absolute inset-y-0 border border-dashed border-faint"
                style={{ left: `${scale.x(start)}%`, width: `max(2px, ${scale.x(end) - scale.x(start)}%)` }}
              />
            ))}
            {row.spans.map((span) => (
              <Span key={span.from} span={span} own={span.id === id} scale={scale} name={nameOf(span)} />
            ))}
          </span>
        </div>
      ))}
      {groups.length > GROUPS && (
        <p className="text-sm text-faint">and {counted(groups.length - GROUPS, 'more group')} of screens</p>
      )}
    </section>
  );

  function nameOf({ source, id: winner }: OutcomeSpan): string {
    return index.bookings.get(winner ?? '')?.name ?? (source === 'backdrop' ? `Backdrop (${winner ?? ''})` : source);
  }
}

function Days({ first }: { first: LocalDate }) {
  return (
    <div className="mt-2 ml-30 flex text-xs text-faint" style={{ maxWidth: WIDTH }}>
      {Array.from({ length: DAYS }, (_, i) => (
        <span key={i} className="min-w-0 flex-1 border-l border-rule pl-1">
          {dateWords(addDays(first, i)).slice(0, -4)}
        </span>
      ))}
    </div>
  );
}

function Span({
  span,
  own,
  scale,
  name,
}: {
  span: OutcomeSpan;
  own: boolean;
  scale: ReturnType<typeof timeScale>;
  name: string;
}) {
  const left = Math.max(0, scale.x(span.from));
  return (
    <span
      title={`${name}: ${spanWords(span.from, span.to)}`}
      className={`absolute inset-y-0 ${own ? 'bg-dusk' : ''}`}
      style={{ left: `${left}%`, width: `max(1px, ${Math.min(WHOLE, scale.x(span.to)) - left}%)` }}
    />
  );
}
