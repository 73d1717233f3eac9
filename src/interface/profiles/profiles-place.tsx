'use client';

import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { useState } from 'react';
import { fieldLabel, fieldSaid, type Profile } from '@/core/plan';
import { SHIPPED_PROFILES } from '@/core/profiles';
import { REFUSED } from '@/core/roles';
import { useMay } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { Empty } from '@/interface/kit/controls/empty';
import { Sheet } from '@/interface/kit/controls/sheet';
import { counted } from '@/interface/kit/words/format';
import { ScreenViews } from '@/interface/screens/views';
import { useWanted } from '@/interface/shell/use-wanted';
import { ProfileForm } from './profile-form';

/** A new profile begins from one of those that come with the program, or from nothing. */
type Open = { readonly id: string } | { readonly begun: Omit<Profile, 'id'> | null } | null;

/** What is said of a profile in the list, in this order. */
const SAID = ['plays', 'codecs', 'most', 'sound', 'inputs', 'paper', 'watts', 'lacks'] as const;

/** What each kind of display can do. */
export function ProfilesPlace() {
  const { draft } = useNetwork('draft');
  const may = useMay('plan');
  const [open, setOpen] = useState<Open>(null);
  useWanted((wanted) => {
    const id = wanted.get('open');
    if (id !== null) setOpen({ id });
  });
  const shown = open && 'id' in open ? draft.profiles.find(({ id }) => id === open.id) : undefined;
  const close = () => setOpen(null);
  const taken = new Set(draft.profiles.map(({ name }) => name.toLowerCase()));
  return (
    <div className="px-3 pb-8 sm:px-6">
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
        <h1 className="sr-only">Profiles</h1>
        <ScreenViews here="/screens/profiles" />
        <Menu>
          <MenuButton
            disabled={!may}
            title={may ? undefined : REFUSED.plan}
            className="ml-auto border border-dusk bg-dusk px-3 py-1.5 text-on-dusk disabled:cursor-not-allowed disabled:opacity-50"
          >
            Add profile
          </MenuButton>
          <MenuItems anchor="bottom end" className="z-50 w-64 border border-rule bg-sheet py-1 text-base">
            {[null, ...SHIPPED_PROFILES].map((begun) => (
              <MenuItem key={begun?.name ?? ''}>
                <button
                  type="button"
                  onClick={() => setOpen({ begun })}
                  className="block w-full px-4 py-1.5 text-left data-focus:bg-well"
                >
                  {begun ? `Like “${begun.name}”` : 'An empty one'}
                </button>
              </MenuItem>
            ))}
          </MenuItems>
        </Menu>
      </div>
      <p className="max-w-prose text-faint">
        A profile says what one kind of display can do. Screens that have it get a warning before something is published
        that they can’t play, and aren’t offered what they can’t do.
      </p>
      {draft.profiles.length === 0 && (
        <Empty title="No profiles yet">Add one for each kind of display that you have, then choose it for them.</Empty>
      )}
      <ul className="mt-4 max-w-4xl">
        {draft.profiles.map((profile) => (
          <li key={profile.id} className="border-t border-rule py-3">
            <button
              type="button"
              onClick={() => setOpen({ id: profile.id })}
              className="min-h-6 text-left text-lg hover:text-tide"
            >
              {profile.name}
            </button>{' '}
            <span className="text-faint">
              {counted(draft.screens.filter((screen) => screen.profile === profile.id).length, 'screen')}
            </span>
            <p className="text-sm">
              {SAID.flatMap((field) =>
                profile[field] === undefined
                  ? []
                  : [
                      `${fieldLabel('profile', field)} ${fieldSaid('profile', field, profile[field], (_kind, id) => id)}`,
                    ],
              ).join(' · ')}
            </p>
          </li>
        ))}
      </ul>
      <Sheet
        open={open !== null && (!('id' in open) || shown !== undefined)}
        title={shown?.name ?? 'A new profile'}
        onClose={close}
      >
        {open && (
          <ProfileForm
            key={'id' in open ? open.id : (open.begun?.name ?? '')}
            profile={shown ?? null}
            begun={'begun' in open ? unique(open.begun, taken) : null}
            onDone={close}
          />
        )}
      </Sheet>
    </div>
  );
}

/** A profile to begin with, under a name that no other has yet. */
function unique(begun: Omit<Profile, 'id'> | null, taken: ReadonlySet<string>): Omit<Profile, 'id'> | null {
  if (!begun || !taken.has(begun.name.toLowerCase())) return begun;
  let number = 2;
  while (taken.has(`${begun.name} ${number}`.toLowerCase())) number++;
  return { ...begun, name: `${begun.name} ${number}` };
}
