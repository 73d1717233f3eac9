'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { answered } from '@/interface/data/answered';
import { useGo, useMoment } from '@/interface/data/moment';
import { usePlanned, usePlannedPlan } from '@/interface/data/planned';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import { callOffPlannedAction, movePlannedAction, publishPlannedAction } from '@/web/actions';
import type { GoesOut, Planned } from '@/services/editions';
import { follow } from './arriving';
import { AtField, plannedWords, useAt } from './at-field';
import { GoingOut } from './going-out';
import { PilotRow } from './pilot-row';
import { useAct } from './use-act';
import { Word } from '@/interface/kit/words/word';

/** What waits: when or where it goes out, by whom, how far players have it; to look at, to move, to publish early, to call off. */
export function PlannedList() {
  const planned = usePlanned({ refresh: true });
  const { draft } = useNetwork('draft');
  const index = useIndex(draft);
  if (planned.length === 0) return null;
  return (
    <section aria-label="Planned" className="mt-10">
      <h2 className="text-lg">
        {planned.some(({ pilot }) => pilot) ? (
          <>
            <Word of="pilot">Pilot</Word> and planned
          </>
        ) : (
          'Planned'
        )}
      </h2>
      <ol className="mt-2">
        {planned.map((one, i) =>
          one.pilot || one.at === null ? (
            <PilotRow key={one.id} planned={one} index={index} />
          ) : (
            <PlannedRow key={one.id} planned={{ ...one, at: one.at }} isFirst={i === 0} next={planned[i + 1]} />
          ),
        )}
      </ol>
    </section>
  );
}

type Timed = Planned & { readonly at: string };

function PlannedRow({
  planned: { id, at, siteTime, person, note, screens, ready, wentBack },
  isFirst,
  next,
}: {
  planned: Timed;
  isFirst: boolean;
  /** The one that builds on it. */
  next: Planned | undefined;
}) {
  const { look } = useNetwork('look');
  const zone = useZone();
  const go = useGo();
  const { lookAtEdition } = useMoment();
  const router = useRouter();
  const { busy, act } = useAct();
  const [moving, setMoving] = useState(false);
  const [early, setEarly] = useState(false);
  const when = plannedWords({ at, siteTime }, zone);
  const move = async (to: GoesOut) => {
    const moved = await act(
      answered(movePlannedAction(id, to)),
      (value) => `It goes out ${plannedWords(value, zone)}.`,
    );
    if (moved) setMoving(false);
    return moved;
  };
  return (
    <li className="border-t border-rule py-3" data-planned={id}>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-heading text-lg font-bold">{when}</span>
        <span className="text-sm text-faint">planned by {person ?? 'someone'}</span>
      </p>
      {note && <p className="break-words">{note}</p>}
      <p className="text-sm">
        {screens.length === 0
          ? 'It changes no screens.'
          : `${counted(screens.length, 'screen')} ${screens.length === 1 ? 'changes' : 'change'}; ${
              ready === screens.length
                ? ready === 1
                  ? 'it has'
                  : 'all have'
                : `${ready} of them ${ready === 1 ? 'has' : 'have'}`
            } downloaded it already.`}
      </p>
      {wentBack && (
        <p className="text-sm text-brick">
          Edition {wentBack.number} went back to edition {wentBack.to} after this was planned. This edition would bring
          the removed changes back.
        </p>
      )}
      {early && (
        <PublishEarly
          id={id}
          when={when}
          busy={busy}
          onClose={() => setEarly(false)}
          onConfirm={() =>
            void act(answered(publishPlannedAction(id)), ({ number }) => {
              follow({ number, since: Date.now() });
              return `Edition ${number} is published, before its time.`;
            })
          }
        />
      )}
      {moving ? (
        <MoveForm when={when} busy={busy} onMove={move} onLeave={() => setMoving(false)} />
      ) : (
        <p className="mt-2 flex flex-wrap gap-2">
          <Button
            variant="quiet"
            onClick={() => {
              void lookAtEdition(null);
              look('published');
              go(Date.parse(at));
              router.push('/');
            }}
          >
            View on Now
          </Button>
          <Button needs="publish" variant="quiet" disabled={busy} onClick={() => setMoving(true)}>
            Move…
          </Button>
          {isFirst && (
            <Button needs="publish" variant="quiet" disabled={busy} onClick={() => setEarly(true)}>
              Publish now…
            </Button>
          )}
          <Button
            needs="publish"
            variant="quiet"
            disabled={busy}
            onClick={() =>
              void act(answered(callOffPlannedAction(id)), () =>
                next?.at
                  ? `Cancelled. Its changes go out ${plannedWords({ ...next, at: next.at }, zone)}, with the edition that builds on it.`
                  : 'Cancelled. Its changes are unpublished again.',
              )
            }
          >
            Cancel this edition
          </Button>
        </p>
      )}
    </li>
  );
}

/** What changes on the screens if it goes out at once. */
function PublishEarly({
  id,
  when,
  busy,
  onConfirm,
  onClose,
}: {
  id: string;
  when: string;
  busy: boolean;
  onConfirm: () => void;
  onClose: () => void;
}) {
  const { data, isError } = usePlannedPlan(id);
  return (
    <GoingOut
      title={`Publish now what is planned for ${when}`}
      plan={data}
      failed={isError}
      confirm="Publish now"
      busy={busy}
      onConfirm={onConfirm}
      onClose={onClose}
    />
  );
}

function MoveForm({
  when,
  busy,
  onMove,
  onLeave,
}: {
  when: string;
  busy: boolean;
  /** Whether it was moved. */
  onMove: (to: GoesOut) => Promise<boolean>;
  onLeave: () => void;
}) {
  const at = useAt();
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-3"
      aria-label={`Move what goes out ${when}`}
      onSubmit={(event) => {
        event.preventDefault();
        if (at.goesOut !== null && !busy) void onMove(at.goesOut);
      }}
    >
      <AtField label="To" at={at} placeholder="tomorrow 06:00" focused />
      <span className="flex gap-2 pb-6">
        <Button type="submit" disabled={busy || at.goesOut === null}>
          Move it
        </Button>
        <Button variant="quiet" onClick={onLeave}>
          Cancel
        </Button>
      </span>
    </form>
  );
}
