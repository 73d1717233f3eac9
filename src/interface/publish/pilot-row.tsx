'use client';

import { MINUTE } from '@/core/instant';
import { answered } from '@/interface/data/answered';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import type { Index } from '@/interface/now/street';
import { Button } from '@/interface/kit/controls/button';
import { counted, dateTime } from '@/interface/kit/words/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { placedName } from '@/interface/kit/words/placed-name';
import { callOffPlannedAction, publishPlannedAction } from '@/web/actions';
import type { Planned } from '@/services/editions';
import { follow } from './arriving';
import { isReached } from './arrival';
import { useAct } from './use-act';

const MOST_NAMED = 12;

/** An edition that is tried on some screens: how they do with it, what comes next, and the two ways on. */
export function PilotRow({
  planned: { id, at, pilot, person, note, steps, screens },
  index,
}: {
  planned: Planned;
  index: Index;
}) {
  const { statuses, published } = useNetwork('statuses', 'published');
  const { now } = useMoment();
  const zone = useZone();
  const { busy, act } = useAct();
  if (!pilot) return null;
  const tried = steps.flatMap((step) => step.screens);
  const isTried = new Set(tried);
  const others = screens.filter((screen) => !isTried.has(screen)).length;
  const paired = tried.flatMap((screen) => statuses.get(screen) ?? []).filter(({ state }) => state !== 'unpaired');
  const lit = paired.filter(isReached).length;
  return (
    <li className="border-t border-rule py-3" data-planned={id}>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-heading text-lg font-bold">
          Playing on {lit} of {counted(paired.length, 'screen')}
        </span>
        <span className="text-sm text-faint">
          since {dateTime(Date.parse(pilot.begun), zone)}, by {person ?? 'someone'}
        </span>
      </p>
      {note && <p className="break-words">{note}</p>}
      {pilot.stopped ? (
        <p role="alert" className="text-brick">
          Stopped {dateTime(Date.parse(pilot.stopped.at), zone)}: {pilot.stopped.why}{' '}
          {others === 1 ? 'The other screen keeps what it has.' : `The other ${others} screens keep what they have.`}
        </p>
      ) : (
        <p>{nextWords(pilot, { others, passed: at !== null, now, zone })}</p>
      )}
      <ul className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="Pilot screens">
        {tried.slice(0, MOST_NAMED).map((screen) => {
          const state = statuses.get(screen)?.state ?? 'unpaired';
          return (
            <li key={screen} className="flex items-center gap-1.5">
              <Lantern state={state} /> {placedName(index, screen)}: {STATE_WORDS[state]}
            </li>
          );
        })}
        {tried.length > MOST_NAMED && <li className="text-faint">and {tried.length - MOST_NAMED} more</li>}
      </ul>
      <p className="mt-2 flex flex-wrap gap-2">
        <Button
          needs="publish"
          disabled={busy}
          onClick={() =>
            void act(answered(publishPlannedAction(id)), ({ number }) => {
              follow({ number, since: Date.now() });
              return `Edition ${number} is published on all screens.`;
            })
          }
        >
          {pilot.stopped ? 'Publish it everywhere anyway' : `Publish it on the other ${counted(others, 'screen')}`}
        </Button>
        <Button
          needs="publish"
          variant={pilot.stopped ? 'main' : 'quiet'}
          disabled={busy}
          onClick={() =>
            void act(
              answered(callOffPlannedAction(id)),
              () =>
                `Cancelled: ${counted(tried.length, 'screen')} ${tried.length === 1 ? 'goes' : 'go'} back to edition ${published?.number ?? 0}. Its changes are unpublished again.`,
            )
          }
        >
          Cancel the pilot{pilot.stopped ? ` and go back to edition ${published?.number ?? 0}` : ''}
        </Button>
      </p>
    </li>
  );
}

/** What happens next, and when, as far as it is known. */
function nextWords(
  { minutes, at, litSince }: NonNullable<Planned['pilot']>,
  {
    others,
    passed,
    now,
    zone,
  }: { readonly others: number; readonly passed: boolean; readonly now: number; readonly zone: string },
): string {
  const rest = others === 1 ? 'The other screen gets it' : `The other ${others} screens get it`;
  if (minutes === null) return `${rest} when you approve it.`;
  const time = at ? `on ${dateTime(Date.parse(at), zone)}` : null;
  if (passed && time !== null)
    return `Passed: ${counted(minutes, 'minute')} without an error. ${rest} ${time}, unless one of these has an error or goes dark before that.`;
  if (litSince === null)
    return time === null
      ? `${rest} when all of these have been lit with it for ${counted(minutes, 'minute')}.`
      : `${rest} ${time}, if all of these have been lit with it for ${counted(minutes, 'minute')} by then.`;
  const left = Math.max(0, Math.ceil((Date.parse(litSince) + minutes * MINUTE - now) / 1000));
  const soon = left < 60 ? counted(left, 'second') : counted(Math.ceil(left / 60), 'minute');
  return time === null
    ? `All of these are lit. ${rest} in ${soon}, if they stay so.`
    : `All of these are lit. ${rest} ${time}, if they stay so for ${soon} more.`;
}
