'use client';

import type { NeverShown } from '@/core';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { ask, useAnswer } from '@/interface/forecast/client';
import { counted } from '@/interface/kit/format';

const SHOWN = 12;

const REASONS: Record<NeverShown['because'], string> = {
  'on hold': 'on hold',
  'not used': 'nothing names it',
  'no screen': 'no screen is meant',
  'no time': 'it has no time in these days',
  hidden: 'something is always ahead of it',
  'nothing to show': 'it has nothing to show',
  'never its turn': 'each window ends before its turn',
};

/** Bookings, playlists and files that no screen shows in a span, and why. */
export function NeverShows({ from, to }: { from: number; to: number }) {
  const { drafted } = useNetwork('drafted');
  const index = useIndex(drafted.plan);
  const list = useAnswer<readonly NeverShown[]>(
    () => ask(drafted, { kind: 'never', from, to }),
    [drafted, from, to],
    [],
  );
  if (list.length === 0) return null;
  const nameOf = ({ kind, id }: NeverShown['subject']) =>
    ({ booking: index.bookings, playlist: index.playlists, media: index.media })[kind].get(id)?.name ?? id;
  const hider = (ids: readonly string[]) =>
    ids.length === 0 ? '' : `: ${ids.map((id) => index.bookings.get(id)?.name ?? id).join(', ')}`;
  return (
    <section aria-label="Never shows" className="mb-4">
      <h3 className="text-base">{counted(list.length, 'thing that never shows', 'things that never show')}</h3>
      <ul className="text-sm">
        {list.slice(0, SHOWN).map(({ subject, because, hiddenBy }) => (
          <li key={`${subject.kind} ${subject.id}`} className="border-l-2 border-rule py-1 pl-3">
            {subject.kind === 'media' ? 'file' : subject.kind} <strong>{nameOf(subject)}</strong>{' '}
            <span className="text-faint">
              {REASONS[because]}
              {hider(hiddenBy)}
            </span>
          </li>
        ))}
      </ul>
      {list.length > SHOWN && <p className="text-sm text-faint">and {list.length - SHOWN} more</p>}
    </section>
  );
}
