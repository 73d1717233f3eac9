'use client';

import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { signOutAction } from '@/web/people-actions';
import { useGo, useMoment } from '@/interface/data/moment';
import { useFromNetwork, useNetwork } from '@/interface/data/provider';
import { useMay } from '@/interface/data/may';
import { useCues, useRequests, useTakeovers } from '@/interface/data/queries';
import { counted } from '@/interface/kit/words/format';
import { Lantern } from '@/interface/kit/lantern/lantern';
import { isInForce } from '@/interface/takeovers/standing';
import { SendingLine } from '@/interface/sending/catch-files';
import { NoticeLine } from './notice';
import { openPalette } from './palette';
import { PLACES } from './places';
import { toggleTheme } from './theme';

export function TopBar() {
  const path = usePathname();
  const { draft, person } = useNetwork('draft', 'person');
  const go = useGo();
  return (
    <header className="flex shrink-0 flex-wrap items-stretch gap-x-3 border-b border-rule bg-paper px-3 sm:h-14 sm:flex-nowrap sm:px-5 lg:gap-x-6">
      <Link
        href="/"
        aria-label={draft.network.name}
        className="flex h-11 items-center gap-2 font-heading text-lg font-bold sm:h-auto"
      >
        <LanternMark />
        <span className="hidden max-w-44 truncate lg:inline">{draft.network.name}</span>
      </Link>
      <nav
        aria-label="Places"
        className="order-last flex w-full flex-wrap items-stretch justify-between sm:order-none sm:w-auto sm:flex-nowrap sm:justify-start"
      >
        {PLACES.slice(0, -5).map(({ path: to, name }) => {
          const here = to === '/' ? path === '/' : path.startsWith(to);
          return (
            <Link
              key={to}
              href={to}
              // Whatever was looked at before: Now is now.
              onClick={to === '/' ? () => go(null) : undefined}
              aria-current={here ? 'page' : undefined}
              className={`flex items-center border-b-3 px-1.5 pt-0.5 max-sm:py-1.5 lg:px-3 ${here ? 'border-dusk font-semibold' : 'border-transparent text-faint hover:text-ink'}`}
            >
              {name}
            </Link>
          );
        })}
      </nav>
      <NoticeLine />
      <div className="ml-auto flex items-center gap-2 lg:gap-4">
        <SendingLine />
        <Alarm />
        <CuesLit />
        <Standing />
        <ToPublish />
        <Menu>
          <MenuButton className="px-2 py-1 hover:text-tide">{person.split(' ')[0]}</MenuButton>
          <MenuItems anchor="bottom end" className="z-50 min-w-44 border border-rule bg-sheet py-1">
            <MenuItem>
              <button
                type="button"
                onClick={openPalette}
                className="flex w-full items-baseline justify-between gap-4 px-4 py-2 text-left data-focus:bg-well"
              >
                Go to anything <span className="font-code text-[11px] text-faint">Ctrl K</span>
              </button>
            </MenuItem>
            <MenuItem>
              <Link href="/cues" className="block px-4 py-2 data-focus:bg-well">
                Boards
              </Link>
            </MenuItem>
            <MenuItem>
              <Link href="/takeovers" className="block px-4 py-2 data-focus:bg-well">
                Takeovers
              </Link>
            </MenuItem>
            <MenuItem>
              <Link href="/people" className="block px-4 py-2 data-focus:bg-well">
                People, password
              </Link>
            </MenuItem>
            <MenuItem>
              <Link href="/network" className="block px-4 py-2 data-focus:bg-well">
                Network
              </Link>
            </MenuItem>
            <MenuItem>
              <button
                type="button"
                onClick={toggleTheme}
                className="block w-full px-4 py-2 text-left data-focus:bg-well"
              >
                Light or dark
              </button>
            </MenuItem>
            <MenuItem>
              <button
                type="button"
                onClick={() => void signOutAction()}
                className="block w-full px-4 py-2 text-left data-focus:bg-well"
              >
                Log out
              </button>
            </MenuItem>
          </MenuItems>
        </Menu>
      </div>
    </header>
  );
}

/** A takeover that is in force, wherever one is: it leads to the all-clear. */
function Alarm() {
  const { now } = useMoment();
  const on = useTakeovers()?.firings.filter((one) => isInForce(one, now)) ?? [];
  const [first] = on;
  if (!first) return null;
  return (
    <Link href="/takeovers" className="flex max-w-52 items-center bg-brick px-2 py-1 text-sm font-semibold text-paper">
      <span className="truncate">
        {first.drill ? 'Drill' : first.name}
        {on.length > 1 ? ` and ${on.length - 1} more` : ''} in force
      </span>
    </Link>
  );
}

/** Cues that are on, wherever one is: it leads to their boards, where they can be ended. */
function CuesLit() {
  const on = useCues()?.on ?? [];
  const [first] = on;
  if (!first) return null;
  return (
    <Link
      href="/cues"
      className="flex max-w-48 items-center gap-1.5 border-2 border-lamp px-2 py-0.5 text-sm max-sm:hidden"
    >
      <Lantern state="lit" />
      <span className="truncate">
        {first.name}
        {on.length > 1 ? ` and ${on.length - 1} more` : ''} on {counted(first.screens.length, 'screen')}
      </span>
    </Link>
  );
}

/** How the newest edition stands: out, or not on all screens yet. */
function Standing() {
  const { published } = useNetwork('published');
  const behind = useFromNetwork(
    ({ statuses }) => [...statuses.values()].filter((one) => one.state === 'behind').length,
  );
  return (
    <p data-testid="standing" className="hidden items-center gap-1.5 whitespace-nowrap text-sm text-faint md:flex">
      {behind > 0 ? (
        <>
          <Lantern state="behind" /> {counted(behind, 'screen')} behind
        </>
      ) : published ? (
        `Edition ${published.number} is out`
      ) : (
        'Nothing published'
      )}
    </p>
  );
}

/** The way to the docket, with how much was changed since the last edition, and how many screens that touches. */
function ToPublish() {
  const { docket } = useNetwork('docket');
  const path = usePathname();
  const { entries, screens } = docket;
  const open = entries > 0 || screens > 0;
  const sum = `${counted(entries, 'change')}, ${counted(screens, 'screen')}`;
  const mayPublish = useMay('publish');
  const waiting = useRequests().list.filter(({ yours, answer }) => mayPublish && !yours && answer === null);
  return (
    <Link
      href="/publish"
      data-testid="docket"
      title={[
        open ? `${sum} since the last edition` : 'Nothing to publish',
        ...waiting.map(({ person: who }) => `${who} asks you to publish`),
      ].join('. ')}
      aria-current={path === '/publish' ? 'page' : undefined}
      className={`cut-small flex items-center gap-2 px-3 py-1.5 sm:px-4 ${open ? 'bg-dusk font-semibold text-on-dusk' : 'bg-well text-ink'}`}
    >
      Publish
      {open && (
        <>
          <span aria-hidden className="min-w-6 bg-on-dusk px-1.5 text-center font-code text-xs leading-5 text-dusk">
            {entries > 0 ? entries : screens}
          </span>
          <span className="sr-only">: {sum}</span>
        </>
      )}
      {waiting.length > 0 && (
        <span className="border border-current px-1 text-xs leading-5">{counted(waiting.length, 'request')}</span>
      )}
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
