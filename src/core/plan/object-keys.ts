import { NETWORK_ID } from './patch';
import { LISTED_KINDS, collectionOf, type Kind } from './registry';
import type { Plan } from './schema';

/** Which object of a plan. */
export interface ObjectKey {
  readonly kind: Kind;
  readonly id: string;
}

/** The same as a text: what a map is looked up by. */
export const keyText = ({ kind, id }: ObjectKey): string => `${kind} ${id}`;

/** All objects of a plan, the network too, by `keyText`. */
export function objectsOf(plan: Plan): ReadonlyMap<string, object> {
  const lists = LISTED_KINDS.flatMap((kind) =>
    plan[collectionOf(kind)].map((one: { readonly id: string }) => [keyText({ kind, id: one.id }), one] as const),
  );
  return new Map<string, object>([[keyText({ kind: 'network', id: NETWORK_ID }), plan.network], ...lists]);
}
