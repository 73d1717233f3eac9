'use client';

import { useMemo } from 'react';
import {
  addDays,
  dateOfLocalTime,
  localOccasions,
  toLocalTime,
  zoneTable,
  type Booking,
  type LocalDate,
  type OutcomeSpan,
  type Patch,
} from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { counted } from '@/interface/kit/format';
import { timeScale } from '@/interface/plan/strata/scale';
import { useOutcome } from '@/interface/plan/use-ahead';
import { dateWords, spanWords } from '@/interface/plan/site-clock-words';

const DAYS = 7;
const WIDTH = 400;
/** Bars stand in percent of the room that there is. */
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
  const rows = useOutcome(first, last, edits, booking.where)?.rows;
  const id = isNew ? 'new-0' : booking.id;
  const wanted = useMemo(
    () => (site ? localOccasions(draft, [booking], site, first, last) : []),
    [draft, booking, site, first, last],
  );
  const groups = rows ?? [];
  const shows = groups.filter((row) => row.spans.some((span) => span.id === id));
  const scale = timeScale(first, DAYS, WHOLE);
  if (screens.length === 0) return null;
  return (
    <section aria-label="Next seven days" className="border-t border-rule pt-4">
      <h3 className="text-base">Next seven days</h3>
      {rows && (
        <p className="text-sm text-faint" data-testid="next-days">
          {wanted.length === 0
            ? 'It has no time in these days.'
            : booking.weave
              ? 'It is woven into what shows there, as below: each turn is counted under "On air" once it is saved.'
              : shows.length === 0
                ? 'It shows on no screen in these days: something is always ahead of it.'
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
            {wanted.map(({ start, end }) => (
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
    return index.bookings.get(winner ?? '')?.name ?? (source === 'backdrop' ? `${winner ?? ''} backdrop` : source);
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
