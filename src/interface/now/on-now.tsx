'use client';

import { useMemo, useState } from 'react';
import { putOnsIn } from '@/core/booking';
import { answered } from '@/interface/data/answered';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { counted, timeOnClocks } from '@/interface/kit/words/format';
import { endPutOnAction } from '@/web/actions';

/** What was put on and is on still, on any screen or on one: on how many, until when, and an end to it. */
export function OnNow({ screen, className = '' }: { screen?: string; className?: string }) {
  const { published, notify } = useNetwork('published', 'notify');
  const { now } = useMoment();
  const zone = useZone();
  const [ending, setEnding] = useState<string | null>(null);
  const all = useMemo(() => (published ? putOnsIn(published.plan) : []), [published]);
  const on = all.filter(
    ({ from, to, screens }) => from <= now && now < to && (screen === undefined || screens.includes(screen)),
  );
  const zonesOfScreens = (ids: readonly string[]) => {
    const { sites = [], screens = [] } = published?.plan ?? {};
    const meant = new Set(screens.filter(({ id }) => ids.includes(id)).map(({ site }) => site));
    return [...new Set(sites.filter(({ id }) => meant.has(id)).map(({ timeZone }) => timeZone))];
  };
  if (on.length === 0) return null;
  const end = async (id: string, name: string) => {
    setEnding(id);
    const result = await answered(endPutOnAction(id));
    setEnding(null);
    notify(result.ok ? `${name} has ended.` : result.message, !result.ok);
  };
  return (
    <ul aria-label="Put on now" className={className}>
      {on.map(({ booking: { id, name }, to, screens }) => (
        <li key={id} className="flex flex-wrap items-center gap-x-3 border-l-4 border-brick bg-sheet px-3 py-1">
          <span className="font-semibold">{name}</span>
          <span className="text-sm text-faint">
            {screen === undefined && `${counted(screens.length, 'screen')}, `}until{' '}
            {timeOnClocks(to, now, zone, zonesOfScreens(screens))}
          </span>
          <Button
            needs="operate"
            variant="grave"
            className="ml-auto !py-0.5 text-sm"
            disabled={ending === id}
            aria-label={`End ${name} now`}
            onClick={() => void end(id, name)}
          >
            {ending === id ? 'Ending…' : 'End now'}
          </Button>
        </li>
      ))}
    </ul>
  );
}
