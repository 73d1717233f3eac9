'use client';

import type { NeverShown } from '@/core';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useUnusedMedia } from '@/interface/data/queries';
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
  // Of files that nothing uses the page holds some at most: the server knows them all.
  const things = list.filter(({ subject, because }) => subject.kind !== 'media' || because !== 'not used');
  const unused = useUnusedMedia(SHOWN);
  const count = things.length + (unused?.total ?? 0);
  if (count === 0) return null;
  const nameOf = ({ kind, id }: NeverShown['subject']) =>
    ({ booking: index.bookings, playlist: index.playlists, media: index.media })[kind].get(id)?.name ?? id;
  const hider = (ids: readonly string[]) =>
    ids.length === 0 ? '' : `: ${ids.map((id) => index.bookings.get(id)?.name ?? id).join(', ')}`;
  return (
    <section aria-label="Never shows" className="mb-4">
      <h3 className="text-base">{counted(count, 'thing that never shows', 'things that never show')}</h3>
      <ul className="text-sm">
        {things.slice(0, SHOWN).map(({ subject, because, hiddenBy }) => (
          <li key={`${subject.kind} ${subject.id}`} className="border-l-2 border-rule py-1 pl-3">
            {subject.kind === 'media' ? 'file' : subject.kind} <strong>{nameOf(subject)}</strong>{' '}
            <span className="text-faint">
              {REASONS[because]}
              {hider(hiddenBy)}
            </span>
          </li>
        ))}
        {unused?.files.slice(0, Math.max(0, SHOWN - things.length)).map(({ id, name }) => (
          <li key={id} className="border-l-2 border-rule py-1 pl-3">
            file <strong>{name}</strong> <span className="text-faint">{REASONS['not used']}</span>
          </li>
        ))}
      </ul>
      {count > SHOWN && <p className="text-sm text-faint">and {count - SHOWN} more</p>}
    </section>
  );
}
