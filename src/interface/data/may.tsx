'use client';

import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { PERMISSIONS, REFUSED, ROLE, type Permission, type Role } from '@/core/roles';

/** What the person who looks may do: the interface offers nothing that the services would refuse. */

interface Mine {
  /** Null outside a network, where nothing depends on it. */
  readonly role: Role | null;
  readonly may: readonly Permission[];
}

const Context = createContext<Mine>({ role: null, may: PERMISSIONS });

export function MayProvider({ role, children }: { role: Role; children: ReactNode }) {
  const mine = useMemo(() => ({ role, may: ROLE[role].may }), [role]);
  return <Context value={mine}>{children}</Context>;
}

/** Whether this person may do something; true where nothing is needed. */
export function useMay(needs: Permission | undefined): boolean {
  const { may } = useContext(Context);
  return needs === undefined || may.includes(needs);
}

/** The role of this person; null outside a network. */
export const useRole = (): Role | null => useContext(Context).role;

/** Shows what is inside to those alone who may do it. */
export function Only({ needs, children }: { needs: Permission; children: ReactNode }) {
  return useMay(needs) ? children : null;
}

/** Why this person can't change what follows; nothing for those who can. */
export function WhyNot({ needs }: { needs: Permission }) {
  return useMay(needs) ? null : (
    <p className="my-2 border-l-2 border-rule bg-well px-3 py-1.5 text-sm">{REFUSED[needs]}</p>
  );
}

/** Fields that everybody can read, and only those can change who may. */
export function Locked({
  needs,
  className = 'contents',
  children,
}: {
  needs: Permission;
  className?: string;
  children: ReactNode;
}) {
  const may = useMay(needs);
  return (
    <fieldset disabled={!may} className={className}>
      {children}
    </fieldset>
  );
}
