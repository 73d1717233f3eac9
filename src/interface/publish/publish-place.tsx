'use client';

import { useState } from 'react';
import { answered } from '@/interface/data/answered';
import {
  askToPublishAction,
  pilotAction,
  planAction,
  publishAction,
  publishAgainAction,
  takeBackAction,
} from '@/web/actions';
import { useZone } from '@/interface/data/zone';
import { useDocket, useEditions } from '@/interface/data/queries';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Word } from '@/interface/kit/words/word';
import { counted, dateTime } from '@/interface/kit/words/format';
import { follow } from './arriving';
import { plannedWords } from './at-field';
import { Editions } from './editions';
import { EditionsCompared, type Compared } from './editions-compared';
import { PlannedList } from './planned-list';
import { Progress } from './progress';
import { PublishAgain } from './publish-again';
import { Requests } from './requests';
import { useAct } from './use-act';
import { Waiting } from './waiting';

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
