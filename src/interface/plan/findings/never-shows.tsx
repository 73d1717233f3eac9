'use client';

import type { NeverShown } from '@/core/forecast';
import { objectIn } from '@/core/plan';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useUnusedMedia } from '@/interface/data/queries';
import { ask, useAnswer } from '@/interface/forecast/client';
import { counted } from '@/interface/kit/words/format';

const SHOWN = 12;
const NAMED = 6;

const REASONS: Record<NeverShown['because'], string> = {
  'on hold': 'on hold',
  'waits for its cue': 'it waits for its cue',
  'not used': 'nothing uses it',
  'no screen': 'no screen matches',
  'no time': 'it has no time in these days',
  hidden: 'something is always ahead of it',
  'nothing to show': 'it has nothing to show',
  archived: 'what it shows is archived',
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
  const unused = useUnusedMedia(NAMED);
  const idle = unused?.total ?? 0;
  const nameOf = ({ kind, id }: NeverShown['subject']) =>
    (kind === 'input' ? undefined : objectIn(drafted.plan, kind, id))?.name ?? id;
  const hider = (ids: readonly string[]) =>
    ids.length === 0 ? '' : `: ${ids.map((id) => index.bookings.get(id)?.name ?? id).join(', ')}`;
  return (
    <>
      {things.length > 0 && (
        <section aria-label="Never shows" className="mb-4">
          <h3 className="text-base">{counted(things.length, 'thing that never shows', 'things that never show')}</h3>
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
          </ul>
          {things.length > SHOWN && <p className="text-sm text-faint">and {things.length - SHOWN} more</p>}
        </section>
      )}
      {idle > 0 && (
        <section aria-label="Not used yet" className="mb-4">
          <h3 className="text-base">{counted(idle, 'file that nothing uses yet', 'files that nothing uses yet')}</h3>
          <p className="text-sm text-faint">
            {unused?.files.map(({ name }) => name).join(', ')}
            {idle > (unused?.files.length ?? 0) && ` and ${idle - (unused?.files.length ?? 0)} more`}
          </p>
        </section>
      )}
    </>
  );
}
