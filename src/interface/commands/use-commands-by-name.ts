'use client';

import { useMemo } from 'react';
import { COMMANDS, COMMAND_KINDS } from '@/core/commands';
import { searchable } from '@/core/text';
import { useNetwork } from '@/interface/data/provider';
import { ableScreens, isAskedAbout } from './offered';
import { useSendCommand } from './use-send';

/** A command that is reached by its name and its screen's: "identify deck". */
export interface NamedCommand {
  readonly key: string;
  readonly name: string;
  readonly what: string;
  readonly hint: string;
  run(): void;
}

/** The commands to single screens that a search may mean: none until it begins with a command's name. */
export function useCommandsByName(search: string, may: boolean): readonly NamedCommand[] {
  const { draft, statuses } = useNetwork('draft', 'statuses');
  const send = useSendCommand();
  const words = searchable(search);
  const meant = COMMAND_KINDS.find(
    (kind) => !isAskedAbout(kind, 1) && words.startsWith(searchable(COMMANDS[kind].name)),
  );
  const able = useMemo(
    () =>
      meant && may
        ? new Set(
            ableScreens(
              meant,
              draft.screens.map(({ id }) => id),
              statuses,
            ),
          )
        : null,
    [meant, may, draft, statuses],
  );
  if (!meant || !able) return [];
  const sites = new Map(draft.sites.map(({ id, name }) => [id, name]));
  return draft.screens
    .filter(({ id }) => able.has(id))
    .map(({ id, name, site }) => ({
      ...{ key: `command ${meant} ${id}`, name: `${COMMANDS[meant].name} ${name}`, what: 'command' },
      ...{ hint: sites.get(site) ?? '', run: () => void send(meant, [id]) },
    }));
}
