'use client';

import { useEffect, useRef, useState } from 'react';
import { keyText, type ObjectKey } from '@/core/plan';
import { answered } from '@/interface/data/answered';
import {
  askToPublishAction,
  pilotAction,
  planAction,
  publishAction,
  publishAgainAction,
  takeBackAction,
} from '@/web/actions';
import { WhyNot, useMay } from '@/interface/data/may';
import { useZone } from '@/interface/data/zone';
import { useDocket, useEditions, usePlanAgain, useRequests } from '@/interface/data/queries';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Word } from '@/interface/kit/words/word';
import { Button } from '@/interface/kit/controls/button';
import { useKey } from '@/interface/shell/keys';
import { Field, Input } from '@/interface/kit/controls/field';
import { counted, dateTime } from '@/interface/kit/words/format';
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
import { Requests } from './requests';
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
  if (!docket || !editions) return <p className="px-6 py-5 text-faint">Counting the changes…</p>;
  const { entries, screens } = docket;
  const open = entries.length > 0 || screens.length > 0;

  const sinceWhat = docket.pilot
    ? 'on top of the edition being piloted'
    : docket.after
      ? `on top of the edition planned for ${dateTime(Date.parse(docket.after), zone)}`
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
          {open ? (
            <>
              <Word of="docket">{counted(entries.length, 'change')}</Word> {sinceWhat}
            </>
          ) : (
            'Nothing to publish'
          )}
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
                (planned) => `Planned. It goes out ${plannedWords(planned, zone)}.`,
              )
            }
            onPilot={(pilot, how) =>
              act(
                answered(pilotAction(docket.change, pilot, how)),
                (tried) => `The pilot is on ${counted(tried.screens, 'screen')}. The others keep what they have.`,
              )
            }
            onAsk={(note, chosen) =>
              act(
                answered(askToPublishAction(note, chosen)),
                () => 'Your request is sent. The answer will appear here.',
              )
            }
            onTakeBack={(chosen) =>
              void act(
                answered(takeBackAction(docket.change, chosen, '')),
                ({ ids }) => `Discarded: ${counted(ids.length, 'change')}. Ctrl Z brings them back.`,
              )
            }
          />
        ) : (
          <>
            <p className="mt-2 text-faint">
              {editions[0]
                ? 'Your changes are saved as drafts and listed here until you publish them.'
                : 'Add sites, screens and files first. Then publish your first edition here.'}
            </p>
            <Requests entries={entries} onChoose={() => {}} />
          </>
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

/** Whether two choices are of the same objects. */
const sameKeys = (some: readonly ObjectKey[], others: readonly ObjectKey[]): boolean =>
  some.length === others.length && new Set([...some, ...others].map(keyText)).size === some.length;

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
  onAsk,
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
  /** Whether it is asked for. */
  onAsk: (note: string, chosen?: readonly ObjectKey[]) => Promise<boolean>;
  onTakeBack: (chosen: readonly ObjectKey[]) => void;
}) {
  const mayPublish = useMay('publish');
  const mayPlan = useMay('plan');
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
  const foot = useRef<HTMLDivElement>(null);
  /** It was asked for while it could not be pressed yet: the focus goes to it as soon as it can. */
  const isWanted = useRef(false);
  const toButton = () => {
    const button = foot.current?.querySelector<HTMLButtonElement>('[data-main]');
    isWanted.current = button?.disabled ?? false;
    button?.focus();
  };
  useKey('p', 'To the button that publishes', toButton);
  useEffect(() => {
    if (isWanted.current) toButton();
  });
  const keys = chosen.map(({ kind, id }) => ({ kind, id }));
  const own = useRequests().list.find(({ yours, answer }) => yours && answer === null);
  const isAsked = own !== undefined && sameKeys(own.chosen, keys);
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
    // If another person edits them later, that is a new change, which isn't chosen with them.
    if (!isWhole) choice.choose([]);
  };
  return (
    <>
      <Requests
        entries={entries}
        onChoose={(list, words) => {
          choice.choose(list);
          if (words) setNote(words);
        }}
      />
      <DocketList entries={entries} choice={choice} />
      {problems.map((problem) => (
        <p key={problem.path} role="alert" className="mt-3 text-brick">
          {problem.message}
        </p>
      ))}
      {chosen.length === 0 && entries.length > 0 ? (
        <p className="mt-4 text-faint">Choose what to publish. The rest stays here.</p>
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
      {mayPlan && (isWhole || chosen.length > 0) && (
        <div className="mt-6 flex flex-wrap gap-x-6 gap-y-4">
          <Field
            label="Note"
            hint={
              mayPublish
                ? 'What this edition is for. Shown in the list of editions.'
                : 'What it is for, and when to publish it. The person who publishes will read this.'
            }
            className="w-full max-w-md"
          >
            <Input value={note} maxLength={500} onChange={({ target }) => setNote(target.value)} />
          </Field>
          {edition && mayPublish && !piloting && <AtField label="When" at={at} placeholder="now" />}
          {edition && piloting && <PilotForm pilot={pilot} />}
        </div>
      )}
      <div
        ref={foot}
        className="sticky bottom-0 z-10 mt-4 flex flex-wrap items-center gap-3 border-t border-rule bg-paper py-3"
      >
        {mayPublish ? (
          <>
            {fresh.errors.length > 0 && <Errors fresh={fresh} />}
            <Button
              data-main
              variant="main"
              className="text-lg"
              disabled={!isReady || !isSaid}
              onClick={() => void publish()}
            >
              {looking ? 'Checking first…' : busy ? 'Publishing…' : said}
            </Button>
          </>
        ) : mayPlan ? (
          <Button
            data-main
            variant="main"
            className="text-lg"
            disabled={busy || chosen.length === 0 || isAsked}
            onClick={() => void onAsk(note, isWhole ? undefined : keys).then((done) => done && setNote(''))}
          >
            {isAsked
              ? 'You asked for this'
              : `Ask to publish ${isWhole ? counted(entries.length, 'change') : chosenWords(choice, entries.length)}`}
          </Button>
        ) : (
          <WhyNot needs="publish" />
        )}
        {edition && mayPublish && (waits ? null : <PilotToggle piloting={piloting} onToggle={setPiloting} />)}
        {edition && chosen.length > 0 && (
          <Button needs="plan" variant="grave" disabled={busy} onClick={() => onTakeBack(keys)}>
            Discard {isWhole && entries.length > 1 ? `all ${chosen.length} changes` : counted(chosen.length, 'change')}
          </Button>
        )}
      </div>
      {mayPublish && waits && at.goesOut === null && (
        <p className="text-sm text-faint">
          {docket.pilot
            ? 'If you publish these now, all screens get them. The pilot’s screens keep their edition and get these too.'
            : 'If you publish these now, they go out before the planned edition. It keeps its time and will include them.'}
        </p>
      )}
      {edition && hasNewPlayer && (
        <p className="text-sm text-faint">
          Discarding a new screen also unpairs its player. Undo brings back the screen, but not the pairing.
        </p>
      )}
      {!isWhole && stays > 0 && chosen.length > 0 && (
        <p className="mt-2 text-sm text-faint" role="status">
          {counted(stays, 'change')} {stays === 1 ? 'stays' : 'stay'} here as a draft.
        </p>
      )}
    </>
  );
}

/** Errors that the changes bring stop them, until the person ticks that they may go out anyway. */
function Errors({ fresh: { errors, accepted, accept } }: { fresh: Fresh }) {
  return (
    <p className="flex w-full flex-wrap items-center gap-x-3 text-sm text-brick">
      {errors.length === 1
        ? 'These changes bring 1 error, so they can’t be published yet. Fix it, or leave that change out.'
        : `These changes bring ${errors.length} errors, so they can’t be published yet. Fix them, or leave those changes out.`}
      <label className="inline-flex items-center gap-1.5 text-ink">
        <input
          type="checkbox"
          className="size-6 accent-dusk"
          checked={accepted}
          onChange={({ target }) => accept(target.checked)}
        />
        Publish {errors.length === 1 ? 'it' : 'them'} anyway
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
