'use client';

import type { NextShown as Next } from '@/core/forecast';
import { DAY } from '@/core/instant';
import { addDays, type LocalDate } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { counted, timeNear } from '@/interface/kit/words/format';
import { ask, useAnswer } from './client';

/** At most this many kinds of screens are listed. */
const TOLD = 6;
/** How many days the forecast covers. */
const AHEAD = 7;
/** How often it is looked again, in milliseconds. */
const AGAIN_MS = 5_000;

/** When, where and by what a file is seen next, by the draft's forecast. */
export function NextShown({ media }: { media: string }) {
  const { drafted, docket } = useNetwork('drafted', 'docket');
  const { now } = useMoment();
  const zone = useZone();
  const at = Math.floor(now / AGAIN_MS) * AGAIN_MS;
  const first = Math.floor(at / DAY) as LocalDate;
  const found = useAnswer<readonly Next[] | null>(
    () => ask(drafted, { kind: 'next', media, at, first, last: addDays(first, AHEAD) }),
    [drafted, media, at],
    null,
  );
  const index = useIndex(drafted.plan);
  if (!found) return <p className="text-sm text-faint">Computing…</p>;
  const soon = found.filter((one) => one.from < at + AHEAD * DAY);
  const waits = docket.entries > 0 && (
    <p className="mt-1 text-sm text-faint">
      This includes your changes: {counted(docket.entries, 'change')} {docket.entries === 1 ? 'isn’t' : 'aren’t'} on the
      screens yet.
    </p>
  );
  if (soon.length === 0)
    return (
      <>
        <p data-testid="next-shown">On no screen in the next seven days.</p>
        {waits}
      </>
    );
  const names = ({ screens }: Next) => {
    const [one] = screens;
    const screen = index.screens.get(one ?? '');
    const name = `${screen?.name ?? one ?? ''}, ${index.sites.get(screen?.site ?? '')?.name ?? ''}`;
    return screens.length === 1 ? name : `${name} and ${counted(screens.length - 1, 'screen')} more`;
  };
  const by = ({ source, id }: Next) =>
    source === 'backdrop' ? `the ${id}'s backdrop` : (drafted.plan.bookings.find((one) => one.id === id)?.name ?? '');
  return (
    <>
      <ul data-testid="next-shown" className="text-sm">
        {soon.slice(0, TOLD).map((one) => (
          <li key={one.screens[0]} className="border-b border-rule py-1">
            <span className="font-code text-xs">{one.from <= now ? 'now' : timeNear(one.from, now, zone)}</span>{' '}
            {names(one)} <span className="text-faint">by {by(one)}</span>
          </li>
        ))}
        {soon.length > TOLD && (
          <li className="py-1 text-faint">
            and later on {counted(soon.slice(TOLD).flatMap((one) => one.screens).length, 'screen')} more
          </li>
        )}
      </ul>
      {waits}
    </>
  );
}
