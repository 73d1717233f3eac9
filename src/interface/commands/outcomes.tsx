'use client';

import { rollup } from 'd3-array';
import { useState } from 'react';
import { commandWords } from '@/core/commands';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useCommands, useRefetch } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { counted, dateTime } from '@/interface/kit/words/format';
import type { CommandOnScreen, SentCommand } from '@/services/commands';
import { cancelCommandAction } from '@/web/actions';

/** So many are shown until a person asks for more. */
const FEW = 1;

/** What was commanded of some screens lately, and how it went: brought up to date as players answer. */
export function Outcomes({ screens, zone }: { screens: readonly string[]; zone: string }) {
  const commands = useCommands(screens);
  const [all, setAll] = useState(false);
  if (!commands || commands.length === 0) return null;
  return (
    <section aria-label="Commands" className="mt-3 text-sm">
      <ul className="space-y-1.5">
        {(all ? commands : commands.slice(0, FEW)).map((command) => (
          <OneCommand key={command.id} command={command} alone={screens.length === 1} zone={zone} />
        ))}
      </ul>
      {!all && commands.length > FEW && (
        <Button variant="quiet" className="!px-0" onClick={() => setAll(true)}>
          Show {counted(commands.length - FEW, 'earlier command')}
        </Button>
      )}
    </section>
  );
}

const STATES: Readonly<Record<CommandOnScreen['state'], string>> = {
  waiting: 'not received yet',
  received: 'received',
  done: 'done',
  failed: 'failed',
  cancelled: 'cancelled',
  late: 'too late: the screen was offline',
};

function OneCommand({ command, alone, zone }: { command: SentCommand; alone: boolean; zone: string }) {
  const { draft, notify } = useNetwork('draft', 'notify');
  const refetch = useRefetch('commands');
  const { id, sentAt, by, screens } = command;
  const counts = [
    ...rollup(
      screens,
      (list) => list.length,
      ({ state }) => state,
    ),
  ];
  const [only] = screens;
  const isOpen = screens.some(({ state }) => state === 'waiting' || state === 'received');
  const said = screens.filter(({ state, said: why }) => state === 'failed' && why !== null);
  const nameOf = (screen: string) => draft.screens.find((one) => one.id === screen)?.name ?? screen;
  const cancel = async () => {
    const result = await answered(cancelCommandAction(id));
    if (!result.ok) notify(result.message, true);
    refetch();
  };
  return (
    <li data-testid="command">
      <p>
        {commandWords(command)}
        <span className="text-faint">
          {' · '}
          {alone && only
            ? stateWords(only, zone)
            : counts.map(([state, n]) => `${counted(n, 'screen')} ${STATES[state]}`).join(', ')}
        </span>
      </p>
      {said.slice(0, 5).map((one) => (
        <p key={one.screen} className="text-brick">
          {alone ? one.said : `${nameOf(one.screen)}: ${one.said}`}
        </p>
      ))}
      <p className="text-faint">
        sent {dateTime(Date.parse(sentAt), zone)}
        {by && ` by ${by}`}
        {isOpen && (
          <>
            {' · '}
            <Button needs="operate" variant="quiet" className="!p-0" onClick={() => void cancel()}>
              Cancel
            </Button>
          </>
        )}
      </p>
    </li>
  );
}

/** How it stands on one screen, with the time: "done 14:03", "received, due 15:00". */
function stateWords({ state, dueAt, endedAt }: CommandOnScreen, zone: string): string {
  const clock = (at: string) => dateTime(Date.parse(at), zone);
  if (endedAt !== null) return `${STATES[state]} ${clock(endedAt)}`;
  const due = Date.parse(dueAt) > Date.now() ? `, due ${clock(dueAt)}` : '';
  return `${STATES[state]}${due}`;
}
