'use client';

import { useState } from 'react';
import { commandWords } from '@/core/commands';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useCommands, useRefetch } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { counted, dateTime } from '@/interface/kit/words/format';
import type { CommandSummary, ScreensAlike } from '@/services/commands';
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

const STATES: Readonly<Record<ScreensAlike['state'], string>> = {
  waiting: 'not received yet',
  received: 'received',
  done: 'done',
  failed: 'failed',
  cancelled: 'cancelled',
  late: 'too late: offline until then',
};

function OneCommand({ command, alone, zone }: { command: CommandSummary; alone: boolean; zone: string }) {
  const { draft, notify } = useNetwork('draft', 'notify');
  const refetch = useRefetch('commands');
  const { id, sentAt, by, states, failed } = command;
  const [only] = states;
  const isOpen = states.some(({ state }) => state === 'waiting' || state === 'received');
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
            : states.map(({ state, screens }) => `${counted(screens, 'screen')} ${STATES[state]}`).join(', ')}
        </span>
      </p>
      {failed.map(({ screen, said }) => (
        <p key={screen} className="text-brick">
          {alone ? said : `${nameOf(screen)}: ${said ?? 'failed'}`}
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

/** The state on one screen, with the time: "done Tue 1 Dec, 14:03", "received, due Tue 1 Dec, 15:00". */
function stateWords({ state, dueAt, endedAt }: ScreensAlike, zone: string): string {
  const clock = (at: string) => dateTime(Date.parse(at), zone);
  if (endedAt !== null) return `${STATES[state]} ${clock(endedAt)}`;
  const due = Date.parse(dueAt) > Date.now() ? `, due ${clock(dueAt)}` : '';
  return `${STATES[state]}${due}`;
}
