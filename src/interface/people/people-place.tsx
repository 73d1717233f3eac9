'use client';

import { useState } from 'react';
import type { Result } from '@/core';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { usePeople, useRefetch } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { dateTime } from '@/interface/kit/format';
import { SecretAddress } from '@/interface/kit/secret-address';
import type { GivenLink } from '@/services/people';
import { InviteForm } from './invite-form';
import { OwnKeys } from './own-keys';
import { OwnSessions } from './own-sessions';
import { PasswordForm } from './password-form';
import { InvitationRow, PersonRow } from './rows';
import { TrailList } from './trail-list';

/** What is done here, as its parts are given it: the answer is told, and the lists are asked for anew. */
export type Act = <T>(work: Promise<Result<T>>, said: string) => Promise<Result<T>>;

interface Shown extends GivenLink {
  readonly name: string;
  readonly reset: boolean;
}

/** Who plans this network: people and those who are invited, one's own password and windows, and what was done. */
export function PeoplePlace() {
  const { draft, notify } = useNetwork('draft', 'notify');
  const view = usePeople();
  const refetch = useRefetch('people');
  const zone = useZone();
  const [link, setLink] = useState<Shown | null>(null);
  const act: Act = async (work, said) => {
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
          <p className="mt-1 text-faint">Everybody here may plan, publish, pair screens and invite others.</p>
        </div>
        {link && (
          <SecretAddress
            label={`Link for ${link.name}`}
            address={`${location.origin}/join#${link.token}`}
            onTold={notify}
          >
            Send this link to {link.name} yourself:{' '}
            {link.reset ? 'it sets a new password' : 'whoever opens it becomes a person of this network'}, once, until{' '}
            {dateTime(Date.parse(link.expiresAt), zone)}. It is shown only now.
          </SecretAddress>
        )}
        {!view ? (
          <p className="text-faint">Asking who is here…</p>
        ) : (
          <ul className="border-y border-rule" aria-label="People">
            {view.people.map((person) => (
              <PersonRow key={person.id} person={person} zone={zone} act={act} give={give} />
            ))}
            {view.invitations.map((invitation) => (
              <InvitationRow key={invitation.id} invitation={invitation} zone={zone} act={act} give={give} />
            ))}
          </ul>
        )}
        <InviteForm give={give} />
        {view && <TrailList lines={view.trail} zone={zone} />}
      </div>
      <aside className="space-y-8" aria-label="Your own ways in">
        {view && <OwnSessions sessions={view.sessions} zone={zone} act={act} />}
        {view && <OwnKeys keys={view.keys} zone={zone} act={act} onTold={notify} />}
        <PasswordForm act={act} />
      </aside>
    </div>
  );
}
