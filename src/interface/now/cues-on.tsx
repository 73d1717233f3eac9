'use client';

import { useState } from 'react';
import { answered } from '@/interface/data/answered';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useCues, useRefetch } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { timeNear } from '@/interface/kit/words/format';
import { fireCueAction } from '@/web/actions';

/** The cues that are on at one screen: since when, by whom, and an end to each there. */
export function CuesOn({ screen }: { screen: string }) {
  const { notify } = useNetwork('notify');
  const { now } = useMoment();
  const zone = useZone();
  const refetch = useRefetch('cues');
  const [ending, setEnding] = useState<string | null>(null);
  const on = (useCues()?.on ?? []).filter(({ screens, until }) => screens.includes(screen) && Date.parse(until) > now);
  if (on.length === 0) return null;
  const end = async (cue: string, name: string) => {
    setEnding(cue);
    const result = await answered(fireCueAction({ cue, where: `screen:${screen}`, end: true }));
    setEnding(null);
    refetch();
    notify(result.ok ? `${name} has ended here.` : result.message, !result.ok);
  };
  return (
    <ul aria-label="Cues that are on" className="mt-3 space-y-1">
      {on.map(({ cue, name, since, until, by, isLocal }) => (
        <li key={cue} className="flex flex-wrap items-center gap-x-3 border-l-4 border-lamp bg-sheet px-3 py-1">
          <span className="font-semibold">{name}</span>
          <span className="text-sm text-faint">
            {isLocal ? 'local choice' : by !== null && `by ${by}`} since {timeNear(Date.parse(since), now, zone)}, until{' '}
            {timeNear(Date.parse(until), now, zone)}
          </span>
          <Button
            needs="operate"
            className="ml-auto !py-0.5 text-sm"
            disabled={ending === cue}
            aria-label={`End ${name} here`}
            onClick={() => void end(cue, name)}
          >
            {ending === cue ? 'Ending…' : 'End here'}
          </Button>
        </li>
      ))}
    </ul>
  );
}
