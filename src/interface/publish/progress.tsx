'use client';

import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import type { Index } from '@/interface/now/street';
import { placedName } from '@/interface/kit/words/placed-name';
import { useMoment } from '@/interface/data/moment';
import { usePlanned } from '@/interface/data/planned';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { hurryAction } from '@/web/actions';
import { stepsOf } from '@/interface/data/reaching';
import { bytesOf, counted } from '@/interface/kit/words/format';
import { Lantern } from '@/interface/kit/lantern/lantern';
import { useArrivals } from '@/interface/data/queries';
import { speedOf, timeLeft, withMark, type Mark } from '@/interface/sending/rate';
import type { Edition } from '@/services/editions';
import type { ScreenStatus } from '@/services/screens';
import { isReached, reachedOf } from './arrival';
import { ArrivalCurve } from './arrival-curve';
import { useAct } from './use-act';

/** How far the newest edition has come: which screens play it, and which do not yet, and why. */
export function Progress({ index, edition }: { index: Index; edition: Edition | undefined }) {
  const { statuses, published } = useNetwork('statuses', 'published');
  const { now } = useMoment();
  const planned = usePlanned();
  const reachedNow = useMemo(() => reachedOf(statuses), [statuses]);
  const arrivals = useArrivals(published?.number ?? null, reachedNow);
  const { busy, act } = useAct();
  if (!published) return null;
  // Some have the next one already: at their sites, or as pilots.
  const ahead = new Set(stepsOf(planned).flatMap(({ at, screens }) => (at <= now && screens ? [...screens] : [])));
  const inEdition = new Set(published.plan.screens.flatMap(({ id }) => (ahead.has(id) ? [] : [id])));
  const paired = [...statuses.values()].filter((one) => inEdition.has(one.id) && one.state !== 'unpaired');
  const reached = paired.filter(isReached);
  const waiting = paired.filter((one) => one.state === 'behind' || one.state === 'dark');
  // Offline players can't be asked, and try by themselves when they are back.
  const heard = waiting.filter(({ state }) => state === 'behind').map(({ id }) => id);
  const hurry = (screens: readonly string[]) =>
    void act(answered(hurryAction(screens)), ({ asked }) =>
      asked === 0 ? 'These screens have no players now.' : `${counted(asked, 'player')} asked to try again at once.`,
    );
  return (
    <section className="mt-10" aria-label={`Edition ${published.number}`} data-testid="progress">
      <h2 className="text-lg">
        Edition {published.number}: playing on {reached.length} of {counted(paired.length, 'screen')}
        {waiting.length > 0 && ' so far'}
      </h2>
      {ahead.size > 0 && (
        <p className="text-sm text-faint">
          {counted(ahead.size, 'screen')} {ahead.size === 1 ? 'has' : 'have'} the next one already.
        </p>
      )}
      <div className="mt-2 flex h-2 bg-well">
        <div
          className="bg-lamp transition-[width]"
          style={{ width: `${paired.length === 0 ? 0 : (100 * reached.length) / paired.length}%` }}
        />
      </div>
      {arrivals && edition?.number === published.number && (
        <ArrivalCurve arrivals={arrivals} out={Date.parse(edition.publishedAt)} />
      )}
      {heard.length > 1 && (
        <Button needs="operate" className="mt-3" disabled={busy} onClick={() => hurry(heard)}>
          Try again on all {heard.length} that are online
        </Button>
      )}
      {waiting.length > 0 && (
        <ul className="mt-3" aria-label="Not updated yet">
          {waiting.slice(0, MOST_NAMED).map((status) => (
            <Behind
              key={status.id}
              status={status}
              name={placedName(index, status.id)}
              onHurry={status.state === 'behind' && !busy ? () => hurry([status.id]) : null}
            />
          ))}
          {waiting.length > MOST_NAMED && (
            <li className="py-1 text-sm text-faint">
              and {waiting.length - MOST_NAMED} more: see{' '}
              <Link href="/screens" className="text-tide underline underline-offset-2">
                Screens
              </Link>
            </li>
          )}
        </ul>
      )}
    </section>
  );
}

/** So many are named: where more are missing, who they are is not what one reads first. */
const MOST_NAMED = 40;

/** A screen that does not play the edition yet: why, and how long it will take. */
function Behind({
  status,
  name,
  onHurry,
}: {
  status: ScreenStatus;
  name: string;
  /** Null while it can't be asked. */
  onHurry: (() => void) | null;
}) {
  const { state, download, lastSeen, troubles } = status;
  const left = useTimeLeft(download);
  const reason = download
    ? `Downloading: ${bytesOf(download.doneBytes, download.totalBytes)}${left && `, about ${left} left`}`
    : state === 'dark'
      ? lastSeen
        ? 'Offline. It will update when it reconnects.'
        : 'Never been online'
      : 'Not updated yet';
  return (
    <li className="flex flex-wrap items-center gap-x-3 py-1">
      <Lantern state={state} />
      <span className="truncate md:w-80">{name}</span>
      <span className="min-w-0 flex-1 text-sm text-faint">
        {reason}
        {troubles.map((trouble) => (
          <span key={trouble} className="block text-brick">
            {trouble}
          </span>
        ))}
      </span>
      {state === 'behind' && (
        <Button needs="operate" disabled={!onHurry} onClick={() => onHurry?.()} aria-label={`Try again: ${name}`}>
          Try again
        </Button>
      )}
    </li>
  );
}

/** A player tells every some seconds: so long it is gone by. */
const WINDOW_MS = 90_000;

/** How long the rest of a download takes, in words, at the speed of the last minute and a half; empty until that is known. */
function useTimeLeft(download: ScreenStatus['download']): string {
  const [marks, setMarks] = useState<readonly Mark[]>([]);
  const done = download?.doneBytes;
  useEffect(() => {
    if (done !== undefined) setMarks((before) => withMark(before, { at: performance.now(), done }, WINDOW_MS));
  }, [done]);
  return download ? timeLeft(download.totalBytes - download.doneBytes, speedOf(marks)) : '';
}
