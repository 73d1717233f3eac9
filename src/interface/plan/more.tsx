'use client';

import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import type { Aside } from './plan-sheets';

/** What is done with whole days, with calendars, and on paper. */
export function More({ onOpen }: { onOpen: (kind: Aside) => void }) {
  const acts: readonly [string, () => void][] = [
    ['Copy days to other days', () => onOpen('copy')],
    ['Calendars of dates', () => onOpen('calendars')],
    ['Bookings from a calendar file', () => onOpen('import')],
    ['Feeds for calendar programs', () => onOpen('feeds')],
    ['Print the week', () => window.print()],
  ];
  return (
    <Menu>
      <MenuButton className="border border-rule bg-sheet px-3 py-1.5 hover:border-ink">More</MenuButton>
      <MenuItems anchor="bottom end" className="z-50 min-w-52 border border-rule bg-sheet py-1">
        {acts.map(([name, act]) => (
          <MenuItem key={name}>
            <button type="button" onClick={act} className="block w-full px-4 py-2 text-left data-focus:bg-well">
              {name}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
