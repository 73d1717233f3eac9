'use client';

import { useState } from 'react';
import type { ObjectKey } from '@/core';
import { answered } from '@/interface/data/answered';
import { pilotAction, planAction, publishAction, publishAgainAction, takeBackAction } from '@/web/actions';
import { useZone } from '@/interface/data/zone';
import { useDocket, useEditions, usePlanAgain } from '@/interface/data/queries';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { counted, dateTime } from '@/interface/kit/format';
import type { Docket, GoesOut, Piloting, Publishing } from '@/services/editions';
import { DocketList, chosenWords } from './docket-list';
import { follow } from './arriving';
import { AtField, goesOutWords, plannedWords, useAt } from './at-field';
import { Editions } from './editions';
import { EditionsCompared, type Compared } from './editions-compared';
import { GoingOut } from './going-out';
import { OnTheGlass } from './on-the-glass';
import { PilotForm, usePilot } from './pilot-form';
import { PlannedList } from './planned-list';
import { Preflight } from './preflight';
import { Progress } from './progress';
import { useAct } from './use-act';
import { useChoice } from './use-choice';
import { useFresh, type Fresh } from './use-fresh';

/** The docket: what was changed, what looks different on the glass, and the one deliberate act. */
export function PublishPlace() {
  const { draft } = useNetwork('draft');
  const docket = useDocket();
  const zone = useZone();
  const { data: editions } = useEditions();
  const index = useIndex(draft);
  const { busy, act } = useAct();
  const [compared, setCompared] = useState<Compared | null>(null);
  const [again, setAgain] = useState<number | null>(null);
  if (!docket || !editions) return <p className="px-6 py-5 text-faint">Counting what was changed…</p>;
  const { entries, screens } = docket;
  const open = entries.length > 0 || screens.length > 0;

  const sinceWhat = docket.pilot
    ? 'on top of what is tried on some screens'
    : docket.after
      ? `on top of what goes out ${dateTime(Date.parse(docket.after), zone)}`
      : `since ${editions[0] ? `edition ${editions[0].number}` : 'the beginning'}`;
  const isOut = ({ number }: { number: number }) => {
    follow({ number, since: Date.now() });
    return `Edition ${number} is published.`;
  };

  return (
    <div className="mx-auto grid max-w-6xl grid-cols-1 gap-10 px-3 py-5 sm:px-6 lg:grid-cols-[1fr_20rem]">
      <div className="min-w-0">
        {compared && <EditionsCompared editions={editions} compared={compared} onChange={setCompared} />}
        {again !== null && editions[0] && (
          <PublishAgain
            key={`${again} ${editions[0].number}`}
            number={again}
            newest={editions[0].number}
            busy={busy}
            onClose={() => setAgain(null)}
            onConfirm={(seen) =>
              void act(answered(publishAgainAction(again, seen)), isOut).then((done) => done && setAgain(null))
            }
          />
        )}
        <h1 className="text-2xl">
          {open ? `${counted(entries.length, 'change')} ${sinceWhat}` : 'Nothing waits to be published'}
        </h1>
        {open ? (
          <Waiting
            docket={docket}
            next={(editions[0]?.number ?? 0) + 1}
            busy={busy}
            onPublish={(how) => act(answered(publishAction(docket.change, how)), isOut)}
            onPlan={(goesOut, how) =>
              act(
                answered(planAction(docket.change, goesOut, how)),
                (planned) => `Planned: it goes out ${plannedWords(planned, zone)}.`,
              )
            }
            onPilot={(pilot, how) =>
              act(
                answered(pilotAction(docket.change, pilot, how)),
                (tried) => `It is tried on ${counted(tried.screens, 'screen')}: the others keep what they have.`,
              )
            }
            onTakeBack={(chosen) =>
              void act(
                answered(takeBackAction(docket.change, chosen, '')),
                ({ ids }) => `Taken back: ${counted(ids.length, 'change')}. Undo brings them again.`,
              )
            }
          />
        ) : (
          <p className="mt-2 text-faint">
            {editions[0]
              ? 'What you change from here on is kept as a draft, and counted here until you publish or plan it.'
              : 'Add sites, screens and media first: then the first edition goes out from here.'}
          </p>
        )}
        <PlannedList />
        <Progress index={index} edition={editions[0]} />
      </div>
      <Editions
        editions={editions}
        busy={busy}
        onCompare={(number) => setCompared([number, editions[0]?.number ?? number])}
        onAgain={setAgain}
      />
    </div>
  );
}

/** What changes on the screens if an earlier edition is published again. */
function PublishAgain({
  number,
  newest,
  busy,
  onConfirm,
  onClose,
}: {
  number: number;
  newest: number;
  busy: boolean;
  onConfirm: (seen: number) => void;
  onClose: () => void;
}) {
  const { data, isError } = usePlanAgain(number, newest);
  return (
    <GoingOut
      title={`Publish edition ${number} again`}
      plan={data}
      failed={isError}
      confirm="Publish again"
      busy={busy}
      onConfirm={() => onConfirm(newest)}
      onClose={onClose}
    >
      <p className="text-sm text-faint">
        Your draft stays as it is. Takeovers in force and what is put on now stay on the screens.
      </p>
    </GoingOut>
  );
}

/** What waits, what of it is chosen and looks different, and the two things to do with it. */
function Waiting({
  docket,
  next,
  busy,
  onPublish,
  onPlan,
  onPilot,
  onTakeBack,
}: {
  docket: Docket;
  next: number;
  busy: boolean;
  /** Whether it was published. */
  onPublish: (how: Publishing) => Promise<boolean>;
  /** Whether it is planned. */
  onPlan: (goesOut: GoesOut, how: Publishing) => Promise<boolean>;
  /** Whether it is tried on some screens. */
  onPilot: (pilot: Piloting, how: Publishing) => Promise<boolean>;
  onTakeBack: (chosen: readonly ObjectKey[]) => void;
}) {
  const { entries, edition } = docket;
  const choice = useChoice(docket);
  const [note, setNote] = useState('');
  const at = useAt();
  const [piloting, setPiloting] = useState(false);
  const [looking, setLooking] = useState(false);
  const pilot = usePilot();
  const zone = useZone();
  const { chosen, isWhole, screens, problems } = choice;
  const { statuses, notify, change } = useNetwork('statuses', 'notify', 'change');
  const hasNewPlayer = chosen.some(
    ({ kind, id, what }) =>
      kind === 'screen' && what === 'added' && (statuses.get(id)?.state ?? 'unpaired') !== 'unpaired',
  );
  const keys = chosen.map(({ kind, id }) => ({ kind, id }));
  const stays = entries.length - chosen.length - choice.along.size;
  const words = screens === undefined ? '' : ` to ${counted(screens.length, 'screen')}`;
  // What is planned is not among what would be out by these changes.
  const waits = docket.after !== null || docket.pilot;
  const alone = !isWhole || waits;
  const fresh = useFresh(alone ? keys : null);
  const stopped = fresh.errors.length > 0 && !fresh.accepted;
  // What is looked at ahead is the draft as the page has it: all that the docket counts has to be in it.
  const isHere = change >= docket.change;
  const isReady =
    isHere &&
    !busy &&
    !looking &&
    !stopped &&
    problems.length === 0 &&
    screens !== undefined &&
    (isWhole || chosen.length > 0);
  const send = (how: Publishing) => {
    if (piloting) return pilot.value ? onPilot(pilot.value, how) : Promise.resolve(false);
    return at.goesOut === null ? onPublish(how) : onPlan(at.goesOut, how);
  };
  const isSaid = piloting ? pilot.value !== null : at.problem === undefined;
  const what = isWhole ? 'it' : chosenWords(choice, entries.length);
  const said = piloting
    ? `Try ${what} on ${counted(pilot.screens, 'screen')} first`
    : at.goesOut !== null
      ? `Plan ${what} for ${goesOutWords(at.goesOut, zone)}${words}`
      : isWhole
        ? `Publish edition ${next}${words}`
        : `Publish ${what} as edition ${next}${words}`;
  const publish = async () => {
    const how = { note, ...(isWhole ? {} : { chosen: keys }) };
    setLooking(true);
    const stops = await fresh.stops();
    setLooking(false);
    if (stops !== null) return notify(`Nothing went out: ${stops}`, true);
    if (!(await send(how))) return;
    setNote('');
    setPiloting(false);
    at.say('');
    // What somebody makes of these later is another change: it is not chosen with them.
    if (!isWhole) choice.choose([]);
  };
  return (
    <>
      <DocketList entries={entries} choice={choice} />
      {problems.map((problem) => (
        <p key={problem.path} role="alert" className="mt-3 text-brick">
          {problem.message}
        </p>
      ))}
      {chosen.length === 0 && entries.length > 0 ? (
        <p className="mt-4 text-faint">Choose what goes out: what you leave stays here.</p>
      ) : (
        screens && (
          <>
            <OnTheGlass screens={screens} chosen={alone ? keys : null} />
            <Preflight
              screens={screens}
              fetches={choice.fetches}
              fresh={fresh}
              goesOut={!piloting && typeof at.goesOut === 'number' ? at.goesOut : null}
            />
          </>
        )
      )}
      {(isWhole || chosen.length > 0) && (
        <div className="mt-6 flex flex-wrap gap-x-6 gap-y-4">
          <Field
            label="Note"
            hint="What this edition is for: it stands in the list of editions."
            className="w-full max-w-md"
          >
            <Input value={note} maxLength={500} onChange={({ target }) => setNote(target.value)} />
          </Field>
          {edition && !piloting && <AtField label="When" at={at} placeholder="now" />}
          {edition && piloting && <PilotForm pilot={pilot} />}
        </div>
      )}
      <div className="sticky bottom-0 z-10 mt-4 flex flex-wrap items-center gap-3 border-t border-rule bg-paper py-3">
        {fresh.errors.length > 0 && <Errors fresh={fresh} />}
        <Button variant="main" className="text-lg" disabled={!isReady || !isSaid} onClick={() => void publish()}>
          {looking ? 'Looking ahead first…' : busy ? 'Publishing…' : said}
        </Button>
        {edition && (waits ? null : <PilotToggle piloting={piloting} onToggle={setPiloting} />)}
        {edition && chosen.length > 0 && (
          <Button variant="grave" disabled={busy} onClick={() => onTakeBack(keys)}>
            Take {isWhole && entries.length > 1 ? `all ${chosen.length}` : chosen.length} back
          </Button>
        )}
      </div>
      {waits && at.goesOut === null && (
        <p className="text-sm text-faint">
          {docket.pilot
            ? 'Published now, these go out to all; the screens that try an edition keep it, and have them too.'
            : 'Published now, these go out ahead of what is planned; that keeps its time, and has them too.'}
        </p>
      )}
      {edition && hasNewPlayer && (
        <p className="text-sm text-faint">
          To take back a screen that was added ends the pairing of its player: undo brings the screen again, not the
          pairing.
        </p>
      )}
      {!isWhole && stays > 0 && chosen.length > 0 && (
        <p className="mt-2 text-sm text-faint" role="status">
          {counted(stays, 'change')} {stays === 1 ? 'stays' : 'stay'} here, and on no screen.
        </p>
      )}
    </>
  );
}

/** Errors that the changes bring stop them, until one says that they may go out so. */
function Errors({ fresh: { errors, accepted, accept } }: { fresh: Fresh }) {
  return (
    <p className="flex w-full flex-wrap items-center gap-x-3 text-sm text-brick">
      {errors.length === 1
        ? 'Preflight stops 1 error that these changes bring: mend it, or leave its change out.'
        : `Preflight stops ${errors.length} errors that these changes bring: mend them, or leave their changes out.`}
      <label className="inline-flex items-center gap-1.5 text-ink">
        <input
          type="checkbox"
          className="size-6 accent-dusk"
          checked={accepted}
          onChange={({ target }) => accept(target.checked)}
        />
        Let {errors.length === 1 ? 'it' : 'them'} go out all the same
      </label>
    </p>
  );
}

/** Opens and closes the way by some screens first. */
function PilotToggle({ piloting, onToggle }: { piloting: boolean; onToggle: (piloting: boolean) => void }) {
  return (
    <Button aria-expanded={piloting} onClick={() => onToggle(!piloting)}>
      {piloting ? 'On all screens at once' : 'On some screens first…'}
    </Button>
  );
}
