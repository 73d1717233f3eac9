'use client';

import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogBackdrop,
  DialogPanel,
} from '@headlessui/react';
import { useRouter } from 'next/navigation';
import { useDeferredValue, useEffect, useEffectEvent, useMemo, useRef, useState, type Ref } from 'react';
import { ROLE, type Permission } from '@/core/roles';
import { useRole } from '@/interface/data/may';
import { useGo } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useLibrary, useNextToTakeBack } from '@/interface/data/queries';
import { signOutAction } from '@/web/people-actions';
import { pathTo } from '@/interface/kit/content/path-to';
import { placeKey } from '@/interface/kit/controls/place-key';
import { useCommandsByName } from '@/interface/commands/use-commands-by-name';
import { reach, type Reachable } from './find';
import { keysNow } from './keys';
import { PLACES } from './places';

/** Acts that are not of one place alone: where they lead. */
const ACTS: readonly (readonly [name: string, path: string, needs?: Permission])[] = [
  ['New booking', '/plan?book=', 'plan'],
  ['Publish', '/publish'],
  ['Add files to the library', '/library', 'library'],
  ['Make a playlist', '/playlists', 'plan'],
  ['Make a layout', '/layouts', 'plan'],
  ['Add a site', '/screens?add=site', 'plan'],
  ['Add a screen', '/screens?add=screen', 'plan'],
  ['Pair several players', '/screens?pair=several', 'operate'],
  ['Pictures of all screens', '/screens/pictures'],
  ['Table of all screens', '/screens/table'],
  ['Map of all screens', '/screens/map'],
  ['Profiles of displays', '/screens/profiles'],
  ['Waiting players and enrolment keys', '/screens/tray'],
  ['Copy days to other days', '/plan?open=copy', 'plan'],
  ['Calendars of dates', '/plan?open=calendars'],
  ['Bookings from a calendar file', '/plan?open=import', 'plan'],
  ['Feeds for calendar programs', '/plan?open=feeds'],
  ['Problems found in the plan', '/plan?open=findings'],
  ['Invite a person', '/people', 'people'],
  ['Change your password', '/people'],
];

const NOTHING: readonly Permission[] = [];

/** Reaches every place, thing and act by its name: opened by Ctrl K, or ⌘ K. */
export function Palette() {
  const [open, setOpen] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey || event.key.toLowerCase() !== 'k')
        return;
      event.preventDefault();
      setOpen((now) => !now);
    };
    const onAsk = () => setOpen(true);
    document.addEventListener('keydown', onKey);
    document.addEventListener(ASKED, onAsk);
    return () => {
      document.removeEventListener('keydown', onKey);
      document.removeEventListener(ASKED, onAsk);
    };
  }, []);
  return (
    <Dialog
      open={open}
      onClose={() => setOpen(false)}
      initialFocus={input}
      className="relative z-50"
      aria-label="Go to anything"
    >
      <DialogBackdrop className="fixed inset-0 bg-[rgb(0_0_0/0.35)]" />
      <div className="fixed inset-x-0 top-[10vh] mx-auto w-full max-w-xl px-3">
        <DialogPanel className="border border-rule bg-paper shadow-xl">
          {open && <Finder input={input} onDone={() => setOpen(false)} />}
        </DialogPanel>
      </div>
    </Dialog>
  );
}

const ASKED = 'lanternpost-palette';

/** Opens it from elsewhere: for those who don't know the key. */
export const openPalette = () => document.dispatchEvent(new Event(ASKED));

function Finder({ input, onDone }: { input: Ref<HTMLInputElement>; onDone: () => void }) {
  const { draft, undo, redo, hold } = useNetwork('draft', 'undo', 'redo', 'hold');
  const role = useRole();
  const may = role ? ROLE[role].may : NOTHING;
  const router = useRouter();
  const [typed, setTyped] = useState('');
  // Enter was pressed before the search had an answer: the first answer is chosen, unless more is typed.
  const [eager, setEager] = useState(false);
  const written = typed.trim();
  const search = useDeferredValue(written);
  const { files = [], isFetching } = useLibrary(search);
  const look = useGo();
  const next = useNextToTakeBack(may.includes('plan'));
  const [keys] = useState(keysNow);
  const things = useMemo(() => {
    const to = (path: string) => () => router.push(path);
    const sites = new Map(draft.sites.map(({ id, name }) => [id, name]));
    const acts: Reachable[] = [
      ...PLACES.map(({ path, name, key }) => ({
        ...{ key: path, name, what: 'place', hint: `g ${key}` },
        run: () => {
          if (path === '/') look(null);
          router.push(path);
        },
      })),
      ...ACTS.filter(([, , needs]) => needs === undefined || may.includes(needs)).map(([name, path]) => ({
        key: `act ${name}`,
        name,
        what: 'act',
        run: to(path),
      })),
      ...(may.includes('plan')
        ? [
            {
              ...{ key: 'act undo', what: 'act', hint: 'Ctrl Z', run: undo },
              name: `Undo your last change${next?.undo ? `: ${next.undo}` : ''}`,
            },
            {
              ...{ key: 'act redo', what: 'act', hint: 'Ctrl Y', run: redo },
              name: next?.redo ? `Redo: ${next.redo}` : 'Redo',
            },
          ]
        : []),
      { key: 'act out', name: 'Log out', what: 'act', run: () => void signOutAction() },
      // What keys do here: the ways to places are known already.
      ...keys
        .filter((one) => !one.keys.startsWith('g '))
        .map((one) => ({ key: `key ${one.keys}`, name: one.what, what: 'act', hint: one.keys, run: one.run })),
    ];
    return [
      ...acts,
      ...draft.bookings.map(({ id, name }) => ({
        ...{ key: `booking ${id}`, name, what: 'booking', run: to(pathTo({ kind: 'booking', id })) },
      })),
      ...draft.playlists.map(({ id, name }) => ({
        ...{ key: `playlist ${id}`, name, what: 'playlist', run: to(pathTo({ kind: 'playlist', id })) },
      })),
      ...draft.sites.map(({ id, name }) => ({
        ...{ key: `site ${id}`, name, what: 'site', run: to(pathTo({ kind: 'site', id })) },
      })),
      ...draft.screens.map(({ id, name, site }) => ({
        ...{ key: `screen ${id}`, name, what: 'screen', hint: sites.get(site) ?? '' },
        run: to(pathTo({ kind: 'screen', id })),
      })),
      ...draft.calendars.map(({ id, name }) => ({
        ...{ key: `calendar ${id}`, name, what: 'calendar', run: to(pathTo({ kind: 'calendar', id })) },
      })),
    ];
  }, [draft, keys, may, router, undo, redo, next, look]);
  const media = files.map((file) => ({
    ...{ key: `media ${file.id}`, name: file.name, what: 'file' },
    run: () => {
      hold([file]);
      router.push(pathTo({ kind: 'media', id: file.id }));
    },
  }));
  const commands = useCommandsByName(search, may.includes('operate'));
  const found = reach(search === '' ? things : [...commands, ...things, ...media], search);
  const isBehind = search !== written || (found.length === 0 && isFetching);
  const go = (one: Reachable) => {
    onDone();
    one.run();
  };
  const goToFirst = useEffectEvent(() => {
    const [first] = found;
    if (first) go(first);
  });
  useEffect(() => {
    if (eager && !isBehind) goToFirst();
  }, [eager, isBehind]);
  return (
    <Combobox<Reachable | null> value={null} onChange={(one) => one && go(one)}>
      <ComboboxInput
        ref={input}
        autoComplete="off"
        spellCheck={false}
        aria-label="Go to, or do"
        placeholder="A place, a booking, a screen, a file, an action…"
        displayValue={() => typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setEager(false);
        }}
        onKeyDown={(event) => {
          // The list would take the first Escape for itself.
          if (event.key === 'Escape') {
            event.preventDefault();
            event.stopPropagation();
            return onDone();
          }
          if (event.key !== 'Enter' || !isBehind) return;
          event.preventDefault();
          setEager(true);
        }}
        className="w-full border-b border-rule bg-sheet px-4 py-3 text-lg outline-none"
      />
      <ComboboxOptions static className="max-h-[60vh] overflow-y-auto py-1">
        {found.map((one, i) => (
          <ComboboxOption
            key={placeKey(i, one.key)}
            value={one}
            className="flex cursor-default items-baseline gap-3 px-4 py-1.5 data-focus:bg-well"
          >
            <span className="w-20 shrink-0 text-sm text-faint">{one.what}</span>
            <span className="min-w-0 truncate">{one.name}</span>
            {one.hint && <span className="ml-auto shrink-0 font-code text-[11px] text-faint">{one.hint}</span>}
          </ComboboxOption>
        ))}
        {found.length === 0 && <p className="px-4 py-3 text-faint">{isBehind ? 'Looking…' : 'No results'}</p>}
      </ComboboxOptions>
    </Combobox>
  );
}
