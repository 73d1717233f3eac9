'use client';

import { useEffect, useRef, useState } from 'react';
import type { Result } from '@/core';
import {
  inviteAction,
  offerResetAction,
  removePersonAction,
  signOutPersonAction,
  withdrawAction,
} from '@/web/people-actions';
import { Button } from '@/interface/kit/button';
import { counted, dateTime } from '@/interface/kit/format';
import type { GivenLink, Invitation, Person } from '@/services/people';
import type { Act } from './people-place';
import { removalSentence } from './words';

export type Give = (work: Promise<Result<GivenLink>>, name: string, reset: boolean) => Promise<Result<GivenLink>>;

interface RowProps {
  readonly zone: string;
  readonly act: Act;
  readonly give: Give;
}

const ROW = 'flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule/60 py-3 last:border-b-0';

export function PersonRow({ person, zone, act, give }: RowProps & { readonly person: Person }) {
  const { id, name, email, you, seenAt, sessions } = person;
  const [asked, setAsked] = useState(false);
  const keep = useRef<HTMLButtonElement>(null);
  const remove = useRef<HTMLButtonElement>(null);
  const was = useRef(asked);
  useEffect(() => {
    if (was.current !== asked) (asked ? keep : remove).current?.focus();
    was.current = asked;
  }, [asked]);
  return (
    <li className={ROW}>
      <span className="min-w-0 flex-1 basis-60">
        <strong className="break-words">{name}</strong>
        {you && <span className="text-faint"> (you)</span>}
        <span className="block break-words text-sm text-faint">
          {email} · {seenAt ? `last here ${dateTime(Date.parse(seenAt), zone)}` : 'signed out'}
          {sessions > 1 && `, ${counted(sessions, 'window')}`}
        </span>
      </span>
      {!you && !asked && (
        <span className="flex flex-wrap gap-2">
          <Button
            variant="quiet"
            aria-label={`New password for ${name}`}
            onClick={() => void give(offerResetAction(id), name, true)}
          >
            New password
          </Button>
          <Button
            variant="quiet"
            disabled={sessions === 0}
            aria-label={`Sign out ${name} everywhere`}
            onClick={() => void act(signOutPersonAction(id), `${name} is signed out everywhere.`)}
          >
            Sign out
          </Button>
          <Button ref={remove} variant="grave" aria-label={`Remove ${name}…`} onClick={() => setAsked(true)}>
            Remove…
          </Button>
        </span>
      )}
      {asked && (
        <div role="group" aria-label={`Remove ${name}`} className="basis-full border-l-3 border-brick pl-3">
          <p className="text-sm">{removalSentence(person)} This can not be taken back: they would be invited anew.</p>
          <span className="mt-2 flex gap-2">
            <Button
              variant="grave"
              onClick={() => void act(removePersonAction(id), `${name} is removed.`).then(() => setAsked(false))}
            >
              Remove {name}
            </Button>
            <Button ref={keep} onClick={() => setAsked(false)}>
              Keep
            </Button>
          </span>
        </div>
      )}
    </li>
  );
}

export function InvitationRow({ invitation, zone, act, give }: RowProps & { readonly invitation: Invitation }) {
  const { id, name, email, reset, by, expiresAt } = invitation;
  return (
    <li className={ROW}>
      <span className="min-w-0 flex-1 basis-60">
        <em className="break-words">{name}</em>{' '}
        <span className="text-faint">{reset ? '(a link for a new password waits)' : '(invited)'}</span>
        <span className="block break-words text-sm text-faint">
          {email} · by {by ?? 'the command line'}, until {dateTime(Date.parse(expiresAt), zone)}
        </span>
      </span>
      <span className="flex gap-2">
        {!reset && (
          <Button
            variant="quiet"
            aria-label={`New link for ${name}`}
            onClick={() => void give(inviteAction({ name, email }), name, false)}
          >
            New link
          </Button>
        )}
        <Button
          variant="grave"
          aria-label={`Withdraw the link for ${name}`}
          onClick={() => void act(withdrawAction(id), 'The link works no more.')}
        >
          Withdraw
        </Button>
      </span>
    </li>
  );
}
