import { ROLE, type Permission, type Role } from '@/core/roles';

/** Who asks: every service call takes one, and sees that person's network only. */
export interface Actor {
  readonly personId: string | null;
  readonly name: string;
  readonly networkId: string;
  /** What they may do: every call that changes something asks for one of these (`demand`). */
  readonly may: readonly Permission[];
  /** A program works with their key. */
  readonly byKey?: true;
}

/** A person with their role. */
export const actorIn = ({ role, ...person }: Omit<Actor, 'may'> & { readonly role: Role }): Actor => ({
  ...person,
  may: ROLE[role].may,
});
