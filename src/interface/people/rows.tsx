'use client';

import { useEffect, useRef, useState } from 'react';
import type { Result } from '@/core/refusal';
import { ROLE, type Role } from '@/core/roles';
import {
  inviteAction,
  offerResetAction,
  removePersonAction,
  setRoleAction,
  signOutPersonAction,
  withdrawAction,
} from '@/web/people-actions';
import { Button } from '@/interface/kit/controls/button';
import { counted, dateTime } from '@/interface/kit/words/format';
import { useMay } from '@/interface/data/may';
import type { GivenLink, Invitation, Person } from '@/services/people';
import type { RunAndTell } from './act';
import { RoleSelect } from './role-select';
import { removalSentence } from './words';

export type Give = (work: Promise<Result<GivenLink>>, name: string, reset: boolean) => Promise<Result<GivenLink>>;

interface RowProps {
  readonly zone: string;
  readonly act: RunAndTell;
  readonly give: Give;
}

const ROW = 'flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule/60 py-3 last:border-b-0';

export function PersonRow({
  person,
  owners,
  zone,
  act,
  give,
}: RowProps & { readonly person: Person; /** How many owners there are. */ readonly owners: number }) {
  const { id, name, email, role, you, seenAt, sessions } = person;
  const mayChange = useMay('people');
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
          {email} · {seenAt ? `last here ${dateTime(Date.parse(seenAt), zone)}` : 'logged out'}
          {sessions > 1 && `, ${counted(sessions, 'window')}`}
        </span>
      </span>
      {mayChange ? (
        <RoleChoice person={person} isLast={role === 'owner' && owners === 1} act={act} />
      ) : (
        <span className="text-sm">{ROLE[role].name}</span>
      )}
      {mayChange && !you && !asked && (
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
            aria-label={`Log out ${name} everywhere`}
            onClick={() => void act(signOutPersonAction(id), `${name} is logged out everywhere.`)}
          >
            Log out
          </Button>
          <Button ref={remove} variant="grave" aria-label={`Remove ${name}…`} onClick={() => setAsked(true)}>
            Remove…
          </Button>
        </span>
      )}
      {asked && (
        <div role="group" aria-label={`Remove ${name}`} className="basis-full border-l-3 border-brick pl-3">
          <p className="text-sm">
            {removalSentence(person)} You can’t undo this. To come back, they need a new invitation.
          </p>
          <span className="mt-2 flex gap-2">
            <Button
              variant="grave"
              onClick={() => void act(removePersonAction(id), `${name} is removed.`).then(() => setAsked(false))}
            >
              Remove {name}
            </Button>
            <Button ref={keep} onClick={() => setAsked(false)}>
              Cancel
            </Button>
          </span>
        </div>
      )}
    </li>
  );
}

/** A person's role: chosen from what each one means. The last owner stays one. */
function RoleChoice({ person, isLast, act }: { person: Person; isLast: boolean; act: RunAndTell }) {
  const { id, name, role, you } = person;
  const [losing, setLosing] = useState<Role | null>(null);
  const set = (next: Role) => {
    setLosing(null);
    void act(setRoleAction(id, next), `${name} is ${ROLE[next].name.toLowerCase()} now.`);
  };
  return (
    <span className="text-sm">
      <RoleSelect
        aria-label={`Role of ${name}`}
        value={losing ?? role}
        disabled={isLast}
        title={isLast ? 'This is the last owner. Make another person an owner first.' : ROLE[role].does}
        onChange={(next) => (you ? setLosing(next) : set(next))}
      />
      {losing && losing !== role && (
        <span role="group" aria-label="Your own role" className="mt-1 flex flex-wrap items-center gap-2">
          You will no longer be able to change roles.
          <Button variant="grave" onClick={() => set(losing)}>
            Become {ROLE[losing].name.toLowerCase()}
          </Button>
          <Button onClick={() => setLosing(null)}>Cancel</Button>
        </span>
      )}
    </span>
  );
}

export function InvitationRow({ invitation, zone, act, give }: RowProps & { readonly invitation: Invitation }) {
  const { id, name, email, reset, role, by, expiresAt } = invitation;
  return (
    <li className={ROW}>
      <span className="min-w-0 flex-1 basis-60">
        <em className="break-words">{name}</em>{' '}
        <span className="text-faint">
          {reset || role === null ? '(has a link for a new password)' : `(invited as ${ROLE[role].name.toLowerCase()})`}
        </span>
        <span className="block break-words text-sm text-faint">
          {email} · by {by ?? 'the command line'}, until {dateTime(Date.parse(expiresAt), zone)}
        </span>
      </span>
      <span className="flex gap-2">
        {!reset && role !== null && (
          <Button
            variant="quiet"
            aria-label={`New link for ${name}`}
            onClick={() => void give(inviteAction({ name, email, role }), name, false)}
          >
            New link
          </Button>
        )}
        <Button
          variant="grave"
          aria-label={`Withdraw the link for ${name}`}
          onClick={() => void act(withdrawAction(id), 'The link no longer works.')}
        >
          Withdraw
        </Button>
      </span>
    </li>
  );
}
