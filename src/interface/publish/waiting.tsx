'use client';

import type { ObjectKey } from '@/core/plan';
import { useMay } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { Field, Input } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import type { Docket } from '@/services/editions';
import { AtField } from './at-field';
import { DocketList } from './docket-list';
import { OnTheGlass } from './on-the-glass';
import { PilotForm } from './pilot-form';
import { Preflight } from './preflight';
import { PublishBar } from './publish-bar';
import { Requests } from './requests';
import { useChoice } from './use-choice';
import { useFresh } from './use-fresh';
import { useWays, type Acts, type Ways } from './use-ways';

/** The changes that wait: which of them are chosen, what they change on the screens, and how they go out. */
export function Waiting({
  docket,
  next,
  busy,
  onTakeBack,
  ...acts
}: Acts & {
  docket: Docket;
  /** The number of the next edition. */
  next: number;
  busy: boolean;
  onTakeBack: (chosen: readonly ObjectKey[]) => void;
}) {
  const mayPlan = useMay('plan');
  const { entries, edition } = docket;
  const choice = useChoice(docket);
  const { chosen, isWhole, keys, screens, problems } = choice;
  // What is planned is not among what would be out by these changes.
  const alone = !isWhole || docket.after !== null || docket.pilot;
  const fresh = useFresh(alone ? keys : null);
  const ways = useWays({ docket, next, choice, fresh, busy }, acts);
  return (
    <>
      <Requests
        entries={entries}
        onChoose={(list, words) => {
          choice.choose(list);
          if (words) ways.setNote(words);
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
              goesOut={!ways.piloting && typeof ways.at.goesOut === 'number' ? ways.at.goesOut : null}
            />
          </>
        )
      )}
      {mayPlan && (isWhole || chosen.length > 0) && <NoteAndWhen ways={ways} isFirst={!edition} />}
      <PublishBar docket={docket} choice={choice} ways={ways} fresh={fresh} busy={busy} onTakeBack={onTakeBack} />
      <Consequences docket={docket} chosen={chosen} ways={ways} stays={stay(choice, entries.length)} />
    </>
  );
}

/** How many changes stay a draft, if only some are chosen. */
const stay = ({ isWhole, chosen, along }: ReturnType<typeof useChoice>, all: number): number =>
  isWhole || chosen.length === 0 ? 0 : all - chosen.length - along.size;

/** What the edition is for, and when or where it begins. The first edition goes out at once, to all screens. */
function NoteAndWhen({ ways, isFirst }: { ways: Ways; isFirst: boolean }) {
  const mayPublish = useMay('publish');
  return (
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
        <Input value={ways.note} maxLength={500} onChange={({ target }) => ways.setNote(target.value)} />
      </Field>
      {!isFirst && mayPublish && !ways.piloting && <AtField label="When" at={ways.at} placeholder="now" />}
      {!isFirst && ways.piloting && <PilotForm pilot={ways.pilot} />}
    </div>
  );
}

/** What publishing or discarding them means beyond the screens: for a planned edition, for new players, for the rest. */
function Consequences({
  docket,
  chosen,
  ways,
  stays,
}: {
  docket: Docket;
  chosen: Docket['entries'];
  ways: Ways;
  stays: number;
}) {
  const mayPublish = useMay('publish');
  const { statuses } = useNetwork('statuses');
  const hasNewPlayer = chosen.some(
    ({ kind, id, what }) =>
      kind === 'screen' && what === 'added' && (statuses.get(id)?.state ?? 'unpaired') !== 'unpaired',
  );
  return (
    <>
      {mayPublish && ways.waits && ways.at.goesOut === null && (
        <p className="text-sm text-faint">
          {docket.pilot
            ? 'If you publish these now, all screens get them. The pilot’s screens keep their edition and get these too.'
            : 'If you publish these now, they go out before the planned edition. It keeps its time and will include them.'}
        </p>
      )}
      {docket.edition && hasNewPlayer && (
        <p className="text-sm text-faint">
          Discarding a new screen also unpairs its player. Undo brings back the screen, but not the pairing.
        </p>
      )}
      {stays > 0 && (
        <p className="mt-2 text-sm text-faint" role="status">
          {counted(stays, 'change')} {stays === 1 ? 'stays' : 'stay'} here as a draft.
        </p>
      )}
    </>
  );
}
