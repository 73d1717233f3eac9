'use client';

import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { useState } from 'react';
import { COMMANDS, type CommandKind } from '@/core/commands';
import { REFUSED } from '@/core/roles';
import { useMay } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { CommandDialog } from './command-dialog';
import { ableScreens, isAskedAbout, offeredCommands } from './offered';
import { useSendCommand } from './use-send';

/** What can be done with the players of some screens: Identify at hand, all else in a menu. What none of them can do is left out. */
export function CommandsMenu({ screens }: { screens: readonly string[] }) {
  const { statuses } = useNetwork('statuses');
  const may = useMay('operate');
  const send = useSendCommand();
  const [asking, setAsking] = useState<CommandKind | null>(null);
  const offered = offeredCommands(screens, statuses);
  if (offered.length === 0) return null;
  const choose = (kind: CommandKind) => {
    const able = ableScreens(kind, screens, statuses);
    if (isAskedAbout(kind, able.length)) setAsking(kind);
    else void send(kind, able);
  };
  return (
    <>
      <Button needs="operate" className="!px-2.5" onClick={() => choose('identify')}>
        {COMMANDS.identify.name}
      </Button>
      <Menu>
        <MenuButton
          disabled={!may}
          title={may ? undefined : REFUSED.operate}
          className="border border-rule bg-sheet px-2.5 py-1.5 hover:border-ink disabled:cursor-not-allowed disabled:opacity-50"
        >
          Commands
        </MenuButton>
        <MenuItems anchor="bottom start" className="z-50 w-52 border border-rule bg-sheet py-1 text-base">
          {offered
            .filter((kind) => kind !== 'identify')
            .map((kind) => (
              <MenuItem key={kind}>
                <button
                  type="button"
                  title={COMMANDS[kind].does}
                  onClick={() => choose(kind)}
                  className="block w-full px-4 py-1.5 text-left data-focus:bg-well"
                >
                  {COMMANDS[kind].name}
                  {isAskedAbout(kind, ableScreens(kind, screens, statuses).length) && '…'}
                </button>
              </MenuItem>
            ))}
        </MenuItems>
      </Menu>
      {asking && (
        <CommandDialog
          kind={asking}
          screens={ableScreens(asking, screens, statuses)}
          others={screens.length - ableScreens(asking, screens, statuses).length}
          onClose={() => setAsking(null)}
        />
      )}
    </>
  );
}
