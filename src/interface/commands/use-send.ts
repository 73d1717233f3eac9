'use client';

import { COMMANDS, type CommandKind } from '@/core/commands';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch } from '@/interface/data/queries';
import { counted } from '@/interface/kit/words/format';
import { commandAction } from '@/web/actions';

/** What goes with a command. */
export interface With {
  readonly percent?: number;
  readonly degrees?: number;
  readonly input?: string;
  readonly keptMs?: number;
  readonly spreadMs?: number;
}

/** Sends a command to screens, and says so. Resolves to why it was refused; null if it was sent. */
export function useSendCommand(): (
  kind: CommandKind,
  screens: readonly string[],
  and?: With,
) => Promise<string | null> {
  const { draft, notify } = useNetwork('draft', 'notify');
  const refetch = useRefetch('commands');
  return async (kind, screens, and = {}) => {
    const result = await answered(commandAction({ kind, screens, ...and }));
    if (!result.ok) {
      notify(result.message, true);
      return result.message;
    }
    refetch();
    const sent = [...new Set(result.value.command.screens.map(({ screen }) => screen))];
    const only = sent.length === 1 ? draft.screens.find(({ id }) => id === sent[0])?.name : undefined;
    notify(`“${COMMANDS[kind].name}” was sent to ${only ?? counted(sent.length, 'screen')}.`);
    return null;
  };
}
