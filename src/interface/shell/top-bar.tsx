'use client';

import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { signOutAction } from '@/web/people-actions';
import { useFromNetwork, useNetwork } from '@/interface/data/provider';
import { counted } from '@/interface/kit/format';
import { PLACES } from './places';
import { toggleTheme } from './theme';

export function TopBar() {
  const path = usePathname();
  const { draft, person } = useNetwork('draft', 'person');
  return (
    <header className="flex h-14 shrink-0 items-stretch gap-6 border-b border-rule bg-paper px-5">
      <Link href="/" className="flex items-center gap-2 font-heading text-lg font-bold">
        <LanternMark />
        <span className="max-w-44 truncate">{draft.network.name}</span>
      </Link>
      <nav aria-label="Places" className="flex items-stretch">
        {PLACES.slice(0, -2).map(({ path: to, name }) => {
          const here = to === '/' ? path === '/' : path.startsWith(to);
          return (
            <Link
              key={to}
              href={to}
              aria-current={here ? 'page' : undefined}
              className={`flex items-center border-b-3 px-3 pt-0.5 ${here ? 'border-dusk font-semibold' : 'border-transparent text-faint hover:text-ink'}`}
            >
              {name}
            </Link>
          );
        })}
      </nav>
      <div className="ml-auto flex items-center gap-4">
        <DocketBadge />
        <Menu>
          <MenuButton className="px-2 py-1 hover:text-tide">{person.split(' ')[0]}</MenuButton>
          <MenuItems anchor="bottom end" className="z-50 min-w-44 border border-rule bg-sheet py-1">
            <MenuItem>
              <Link href="/people" className="block px-4 py-2 data-focus:bg-well">
                People, password
              </Link>
            </MenuItem>
            <MenuItem>
              <button
                type="button"
                onClick={toggleTheme}
                className="block w-full px-4 py-2 text-left data-focus:bg-well"
              >
                Day or night
              </button>
            </MenuItem>
            <MenuItem>
              <button
                type="button"
                onClick={() => void signOutAction()}
                className="block w-full px-4 py-2 text-left data-focus:bg-well"
              >
                Sign out
              </button>
            </MenuItem>
          </MenuItems>
        </Menu>
      </div>
    </header>
  );
}

/** What was changed since the last edition, and how many screens it touches; after publishing, those that are not lit on it yet. */
function DocketBadge() {
  const { docket, published } = useNetwork('docket', 'published');
  const behind = useFromNetwork(
    ({ statuses }) => [...statuses.values()].filter((one) => one.state === 'behind').length,
  );
  const { entries, screens } = docket;
  const open = entries > 0 || screens > 0;
  const text = open
    ? `${counted(entries, 'change')}, ${counted(screens, 'screen')}`
    : behind > 0
      ? `${counted(behind, 'screen')} behind`
      : published
        ? `Edition ${published.number} is out`
        : 'Nothing published';
  return (
    <Link
      href="/publish"
      data-testid="docket"
      className={`cut-small flex items-center gap-2 px-4 py-1.5 ${open ? 'bg-dusk font-semibold text-on-dusk' : 'bg-well text-ink'}`}
    >
      {text}
      {open && <span className="font-normal opacity-80">Publish…</span>}
    </Link>
  );
}

function LanternMark() {
  return (
    <svg width="24" height="24" viewBox="0 0 32 32" aria-hidden>
      <path d="M16 3v5M11 8h10l2.4 17H8.600z" fill="none" stroke="currentColor" strokeWidth="2" />
      <path d="M16 11c3.200 3.400 3.200 5 3.200 7a3.200 3.200 0 0 1-6.400 0c0-2 0-3.600 3.200-7z" fill="#e3a008" />
      <path d="M7 29h18" stroke="currentColor" strokeWidth="2" />
    </svg>
  );
}
