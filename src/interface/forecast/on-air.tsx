'use client';

import type { AirTime, Subject } from '@/core/forecast';
import { DAY, HOUR } from '@/core/instant';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { ask, useAnswer } from './client';
import { counted } from '@/interface/kit/words/format';

const SCREENS_NAMED = 5;

/** Where and how long something really shows in the next seven days: what wins against it is counted out. */
export function OnAir({ kind, id }: Subject) {
  const { drafted } = useNetwork('drafted');
  const { now } = useMoment();
  const index = useIndex(drafted.plan);
  const from = Math.floor(now / HOUR) * HOUR;
  const times = useAnswer<readonly AirTime[] | null>(
    () => ask(drafted, { kind: 'airtime', subject: { kind, id }, from, to: from + 7 * DAY }),
    [drafted, kind, id, from],
    null,
  );
  if (!times) return <p className="text-sm text-faint">Computing…</p>;
  if (times.length === 0) return <p data-testid="on-air">On no screen in the next seven days.</p>;
  const sum = (of: (one: AirTime) => number) => times.reduce((total, one) => total + of(one), 0);
  const most = [...times].sort((a, b) => b.ms - a.ms).slice(0, SCREENS_NAMED);
  return (
    <div data-testid="on-air">
      <p>
        {hours(sum((one) => one.ms))} on {counted(times.length, 'screen')},{' '}
        {counted(
          sum((one) => one.plays),
          'turn',
        )}{' '}
        in the next seven days.
      </p>
      <p className="text-sm text-faint">
        {most
          .map(({ screen, ms }) => {
            const found = index.screens.get(screen);
            return `${found?.name ?? screen}, ${index.sites.get(found?.site ?? '')?.name ?? ''}: ${hours(ms)}`;
          })
          .join('; ')}
        {times.length > SCREENS_NAMED && ' …'}
      </p>
    </div>
  );
}

const HOURS = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 1 });

const hours = (ms: number) =>
  ms < HOUR ? `${Math.max(1, Math.round(ms / 60_000))} min` : `${HOURS.format(ms / HOUR)} h`;
