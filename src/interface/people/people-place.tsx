'use client';

import { useState } from 'react';
import type { Result } from '@/core/refusal';
import { ROLE } from '@/core/roles';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { usePeople, useRefetch } from '@/interface/data/queries';
import { Only, useRole } from '@/interface/data/may';
import { useZone } from '@/interface/data/zone';
import { dateTime } from '@/interface/kit/words/format';
import { SecretAddress } from '@/interface/kit/controls/secret-address';
import type { GivenLink } from '@/services/people';
import type { RunAndTell } from './act';
import { InviteForm } from './invite-form';
import { OthersKeys, OwnKeys } from './own-keys';
import { OwnSessions } from './own-sessions';
import { PasswordForm } from './password-form';
import { InvitationRow, PersonRow } from './rows';
import { TrailList } from './trail-list';

interface ShownLink extends GivenLink {
  readonly name: string;
  readonly reset: boolean;
}

/** Who plans this network: people and those who are invited, one's own password and windows, and what was done. */
export function PeoplePlace() {
  const { draft, notify } = useNetwork('draft', 'notify');
  const view = usePeople();
  const role = useRole();
  const refetch = useRefetch('people');
  const zone = useZone();
  const [link, setLink] = useState<ShownLink | null>(null);
  const act: RunAndTell = async (work, said) => {
    const result = await answered(work);
    notify(result.ok ? said : result.message, !result.ok);
    refetch();
    return result;
  };
  const give = async (work: Promise<Result<GivenLink>>, name: string, reset: boolean) => {
    const result = await answered(work);
    if (result.ok) setLink({ ...result.value, name, reset });
    else notify(result.message, true);
    refetch();
    return result;
  };
  return (
    <div className="mx-auto grid max-w-6xl grid-cols-1 gap-10 px-6 py-5 lg:grid-cols-[1fr_22rem]">
      <div className="min-w-0 space-y-6">
        <div>
          <h1 className="text-2xl">People of {draft.network.name}</h1>
          {role && (
            <p className="mt-1 text-faint">
              Your role: {ROLE[role].name}. {ROLE[role].does}
            </p>
          )}
        </div>
        {link && (
          <SecretAddress
            label={`Link for ${link.name}`}
            address={`${location.origin}/join#${link.token}`}
            onTold={notify}
          >
            Send this link to {link.name} yourself:{' '}
            {link.reset ? 'it sets a new password' : 'the person who opens it joins this network'}, once, until{' '}
            {dateTime(Date.parse(link.expiresAt), zone)}. It is shown only now.
          </SecretAddress>
        )}
        {!view ? (
          <p className="text-faint">Loading…</p>
        ) : (
          <ul className="border-y border-rule" aria-label="People">
            {view.people.map((person) => (
              <PersonRow
                key={person.id}
                person={person}
                owners={view.people.filter((one) => one.role === 'owner').length}
                zone={zone}
                act={act}
                give={give}
              />
            ))}
            {view.invitations.map((invitation) => (
              <InvitationRow key={invitation.id} invitation={invitation} zone={zone} act={act} give={give} />
            ))}
          </ul>
        )}
        <Only needs="people">
          <InviteForm give={give} />
          {view && <OthersKeys keys={view.othersKeys} zone={zone} act={act} />}
          {view && <TrailList lines={view.trail} zone={zone} />}
        </Only>
      </div>
      <aside className="space-y-8" aria-label="Your own access">
        {view && <OwnSessions sessions={view.sessions} zone={zone} act={act} />}
        {view && <OwnKeys keys={view.keys} zone={zone} act={act} onTold={notify} />}
        <PasswordForm act={act} />
      </aside>
    </div>
  );
}
