import { Refusal } from '@/core/refusal';
import { REFUSED, type Permission } from '@/core/roles';
import type { Actor } from './actor';

/** Throws 403 if the actor may not do this. Every service call that changes something begins with it. */
export function demand({ may }: Pick<Actor, 'may'>, permission: Permission): void {
  if (!may.includes(permission)) throw new Refusal(403, REFUSED[permission]);
}
