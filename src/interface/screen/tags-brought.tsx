'use client';

import Link from 'next/link';
import type { Brought } from '@/core/forecast';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { ask, useAnswer } from '@/interface/forecast/client';
import { counted } from '@/interface/kit/words/format';

/** A screen's tags, and the bookings that would not reach it without them. */
export function TagsBrought({ screen }: { screen: string }) {
  const { draft, drafted } = useNetwork('draft', 'drafted');
  const index = useIndex(draft);
  const site = index.sites.get(index.screens.get(screen)?.site ?? '');
  const tags = useAnswer<readonly Brought[] | null>(
    async () => (index.screens.has(screen) ? ask(drafted, { kind: 'brought', screen }) : []),
    [drafted.key, screen],
    null,
  );
  if (tags === null) return <p className="text-sm text-faint">…</p>;
  if (tags.length === 0)
    return <p className="text-sm text-faint">No tags. Add some, so that bookings for a tag reach this screen.</p>;
  return (
    <dl className="space-y-3">
      {tags.map(({ tag, isOfSite, bookings }) => {
        const nothing = bookings.filter(({ hasNothing }) => hasNothing).length;
        return (
          <div key={tag}>
            <dt className="font-semibold text-tide">
              {tag}
              {isOfSite && <span className="text-sm font-normal text-faint"> from {site?.name}</span>}
              <span className="text-sm font-normal text-faint">
                {': '}
                {bookings.length === 0 ? 'brings no booking' : counted(bookings.length, 'booking')}
                {nothing > 0 && `, ${nothing} with nothing for this screen`}
              </span>
            </dt>
            {bookings.map(({ booking, hasNothing }) => (
              <dd key={booking} className="text-sm">
                <Link
                  href={`/plan?booking=${encodeURIComponent(booking)}`}
                  className="inline-flex min-h-6 items-center hover:text-tide"
                >
                  {index.bookings.get(booking)?.name ?? booking}
                </Link>
                {hasNothing && (
                  <span className="text-brick"> · all of its files are for other screens, so it never shows here</span>
                )}
              </dd>
            ))}
          </div>
        );
      })}
    </dl>
  );
}
