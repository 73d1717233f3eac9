'use client';

import { useState } from 'react';
import { waitingFor } from '@/core/forecast';
import { REFUSED } from '@/core/roles';
import { useMay } from '@/interface/data/may';
import { useMoment } from '@/interface/data/moment';
import { useFromNetwork, useNetwork } from '@/interface/data/provider';
import { useCues } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { Sheet } from '@/interface/kit/controls/sheet';
import { Word } from '@/interface/kit/words/word';
import { counted, timeNear } from '@/interface/kit/words/format';
import { useWanted } from '@/interface/shell/use-wanted';
import { BoardForm } from './board-form';
import { BoardLinks } from './board-links';
import { BoardPeople } from './board-people';
import { CueForm } from './cue-form';
import { FiredList } from './fired-list';
import { NewButton } from './new-button';
import { PressedBoard } from './pressed-board';

type Open =
  | { readonly what: 'button'; readonly board?: string }
  | { readonly what: 'cue'; readonly id: string | null }
  | { readonly what: 'board' | 'links' | 'people'; readonly id: string };

const NO_PEOPLE: readonly string[] = [];

/** Boards of buttons that fire cues, what is on since one was pressed, and the cues themselves. */
export function CuesPlace() {
  const { draft, person } = useNetwork('draft', 'person');
  const me = useFromNetwork(({ view }) => view.me);
  const { now } = useMoment();
  const zone = useZone();
  const known = useCues();
  const may = useMay('operate');
  const isOwner = useMay('people');
  const [open, setOpen] = useState<Open | null>(null);
  useWanted((wanted) => {
    const [cue, board] = [wanted.get('cue'), wanted.get('board')];
    if (cue !== null) setOpen({ what: 'cue', id: cue });
    else if (board !== null) setOpen({ what: 'board', id: board });
  });
  const close = () => setOpen(null);
  const boards = [...draft.boards].sort((a, b) => a.name.localeCompare(b.name));
  const cues = [...draft.cues].sort((a, b) => a.name.localeCompare(b.name));
  const shownBoard = open && 'id' in open ? draft.boards.find(({ id }) => id === open.id) : undefined;
  const shownCue = open?.what === 'cue' ? draft.cues.find(({ id }) => id === open.id) : undefined;
  return (
    <div className="mx-auto max-w-5xl px-3 py-5 sm:px-6">
      <header className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl">Boards</h1>
        <div className="flex gap-2">
          <Button needs="plan" variant="quiet" onClick={() => setOpen({ what: 'cue', id: null })}>
            Add a cue
          </Button>
          <Button needs="plan" variant="main" onClick={() => setOpen({ what: 'button' })}>
            Add a button
          </Button>
        </div>
      </header>
      {known?.tooOften.map(({ cue, said, last, count }) => (
        <p key={`${cue} ${said}`} role="alert" className="mt-3 border border-brick p-3 text-brick">
          {said} fired “{draft.cues.find(({ id }) => id === cue)?.name ?? cue}” far too often:{' '}
          {counted(count, 'press', 'presses')} were passed over, the last at {timeNear(Date.parse(last), now, zone)}.
        </p>
      ))}
      {boards.length === 0 && (
        <Empty title="No boards yet">
          A board has buttons that show something at once: a greeting on one deck, a safety video, a gale warning. Add a
          button: say what it shows, where and how long.
        </Empty>
      )}
      {boards.map((board) => {
        const people = known?.people[board.id] ?? NO_PEOPLE;
        const isTheirs = isOwner || people.length === 0 || people.includes(me);
        return (
          <section key={board.id} aria-labelledby={`board-${board.id}`} className="mt-6 border-t border-rule pt-4">
            <div className="mb-3 flex flex-wrap items-baseline gap-x-4">
              <h2 id={`board-${board.id}`} className="text-lg">
                {board.name}
              </h2>
              <span className="ml-auto flex flex-wrap gap-x-2">
                <Button
                  needs="plan"
                  variant="quiet"
                  aria-label={`Add a button to ${board.name}`}
                  onClick={() => setOpen({ what: 'button', board: board.id })}
                >
                  Add a button
                </Button>
                <Button
                  needs="plan"
                  variant="quiet"
                  aria-label={`Edit ${board.name}`}
                  onClick={() => setOpen({ what: 'board', id: board.id })}
                >
                  Edit
                </Button>
                <Button needs="operate" variant="quiet" onClick={() => setOpen({ what: 'people', id: board.id })}>
                  {people.length === 0 ? 'Who may press it' : `For ${counted(people.length, 'person', 'people')} alone`}
                </Button>
                <Button
                  needs="operate"
                  variant="quiet"
                  aria-label={`On a phone: ${board.name}`}
                  onClick={() => setOpen({ what: 'links', id: board.id })}
                >
                  On a phone
                </Button>
              </span>
            </div>
            {!isTheirs && <p className="mb-2 text-sm text-faint">This board is for other people alone, {person}.</p>}
            <PressedBoard id={board.id} off={!may || !isTheirs} why={may ? undefined : REFUSED.operate} />
          </section>
        );
      })}
      <section aria-labelledby="cues" className="mt-8 border-t border-rule pt-4">
        <h2 id="cues" className="text-lg">
          <Word of="cue">Cues</Word>
        </h2>
        {cues.length === 0 && <p className="mt-1 text-faint">None yet. A button that you add makes its own.</p>}
        <ul>
          {cues.map(({ id, name, key }) => {
            const waiting = waitingFor(draft, id);
            return (
              <li key={id} className="flex flex-wrap items-baseline gap-x-3 py-1">
                <button
                  type="button"
                  onClick={() => setOpen({ what: 'cue', id })}
                  className="min-h-6 text-left font-semibold hover:text-tide"
                >
                  {name}
                </button>
                <span className="text-sm text-faint">
                  {waiting.length === 0
                    ? key === undefined
                      ? 'no booking waits for it'
                      : 'no booking waits for it: its key ends what other keys chose'
                    : `starts ${waiting.map((booking) => booking.name).join(', ')}`}
                  {key !== undefined && ` · key ${key}`}
                </span>
              </li>
            );
          })}
        </ul>
      </section>
      <FiredList fired={known?.fired ?? []} />
      <Sheet open={open?.what === 'button'} title="A new button" onClose={close}>
        {open?.what === 'button' && (
          <NewButton
            board={open.board ?? boards[0]?.id ?? null}
            onDone={(board) => setOpen({ what: 'links', id: board })}
          />
        )}
      </Sheet>
      <Sheet
        open={open?.what === 'cue' && (open.id === null || shownCue !== undefined)}
        title={shownCue?.name ?? 'A new cue'}
        onClose={close}
      >
        {open?.what === 'cue' && <CueForm key={open.id ?? ''} cue={shownCue ?? null} onDone={close} />}
      </Sheet>
      <Sheet open={open?.what === 'board' && shownBoard !== undefined} title={shownBoard?.name ?? ''} onClose={close}>
        {shownBoard && <BoardForm key={shownBoard.id} board={shownBoard} onDone={close} />}
      </Sheet>
      <Sheet
        open={open?.what === 'links' && shownBoard !== undefined}
        title={`${shownBoard?.name ?? ''} on a phone`}
        onClose={close}
      >
        {shownBoard && (
          <BoardLinks
            key={shownBoard.id}
            board={shownBoard}
            links={(known?.links ?? []).filter((link) => link.board === shownBoard.id)}
          />
        )}
      </Sheet>
      <Sheet
        open={open?.what === 'people' && shownBoard !== undefined}
        title={`Who may press ${shownBoard?.name ?? ''}`}
        onClose={close}
      >
        {shownBoard && (
          <BoardPeople
            key={shownBoard.id}
            board={shownBoard}
            people={known?.people[shownBoard.id] ?? NO_PEOPLE}
            onDone={close}
          />
        )}
      </Sheet>
    </div>
  );
}
