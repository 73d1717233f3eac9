'use client';

import { useState } from 'react';
import { answered } from '@/interface/data/answered';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { zonesOf } from '@/interface/forms/use-phrase-context';
import { Button } from '@/interface/kit/controls/button';
import { counted, timeNear, timeOnClocks } from '@/interface/kit/words/format';
import { allClearAction } from '@/web/actions';
import type { Firing } from '@/services/editions';
import { FiringScreens } from './firing-screens';
import { byWhom } from './words';

/** A takeover that is in force: since when and by whom, how many screens say that they show it, and the all-clear. */
export function InForce({ firing }: { firing: Firing }) {
  const { notify, draft } = useNetwork('notify', 'draft');
  const { now } = useMoment();
  const zone = useZone();
  const refetch = useRefetch('editions');
  const [busy, setBusy] = useState(false);
  const { name, booking, drill, firedAt, until, screens, showing } = firing;
  const clear = async () => {
    setBusy(true);
    const result = await answered(allClearAction(booking));
    setBusy(false);
    refetch();
    notify(result.ok ? `All-clear given. “${name}” is off and ready again.` : result.message, !result.ok);
  };
  const where = draft.bookings.find(({ id }) => id === booking)?.where;
  const end =
    until === null
      ? 'until the all-clear'
      : `until ${timeOnClocks(Date.parse(until), now, zone, zonesOf(draft, where))}`;
  return (
    <section aria-label={`In force: ${name}`} className="mt-4 border-2 border-brick bg-sheet p-4">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h2 className="text-xl text-brick">
            {drill && <span className="mr-2 bg-brick px-1.5 text-base text-paper">DRILL</span>}
            {name} is in force
          </h2>
          <p className="text-sm text-faint">
            since {timeNear(Date.parse(firedAt), now, zone)}, {end}; activated by {byWhom(firing.firedBy, firing.byKey)}
          </p>
        </div>
        <Button needs="operate" variant="main" className="text-lg" disabled={busy} onClick={() => void clear()}>
          {busy ? 'Clearing…' : 'All-clear'}
        </Button>
      </div>
      <p className="mt-3" role="status">
        {showing} of {counted(screens, 'screen')} {showing === 1 ? 'says' : 'say'} that{' '}
        {showing === 1 ? 'it shows' : 'they show'} it.
      </p>
      <div className="mt-1 flex h-2 bg-well">
        <div
          className="bg-brick transition-[width]"
          style={{ width: `${screens === 0 ? 0 : (100 * showing) / screens}%` }}
        />
      </div>
      {showing < screens && (
        <div className="mt-2">
          <FiringScreens
            firing={firing}
            only={({ from, over }) => from === null || over}
            title={`Not yet: ${counted(screens - showing, 'screen')}`}
            states
          />
        </div>
      )}
    </section>
  );
}
