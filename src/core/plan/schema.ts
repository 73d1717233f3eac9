import * as z from 'zod';
import { networkSchema } from './kinds/network';
import { KINDS } from './kinds';
import { LISTED_KINDS, collectionOf, type Collection, type DocumentOf, type ListedKind } from './registry';
import type { Network } from './kinds/network';

/** The plan file, format version 1: docs/plan-format.md. What it is made of are the kinds of `registry.ts`. */

/** Each kind's documents under the name of its list. */
type Lists = { [K in ListedKind as NonNullable<(typeof KINDS)[K]['collection']>]: DocumentOf<K>[] };

/** All decisions of a network. */
export type Plan = { format: 'lanternpost/plan'; version: 1; network: Network } & Lists;

const byCollection = <V>(make: (kind: ListedKind) => V) =>
  Object.fromEntries(LISTED_KINDS.map((kind) => [collectionOf(kind), make(kind)])) as Record<Collection, V>;

export const planSchema = z.strictObject({
  format: z.literal('lanternpost/plan', 'This isn’t a plan file: its “format” must be “lanternpost/plan”.'),
  version: z.literal(1, 'This plan file has another version. Only version 1 can be read.'),
  network: networkSchema,
  ...byCollection((kind) => z.array<z.ZodType>(KINDS[kind].schema).default([])),
}) as z.ZodType<Plan>;

/** A plan in which nothing is decided yet. */
export function emptyPlan(name: string): Plan {
  return { format: 'lanternpost/plan', version: 1, network: { name }, ...byCollection((): never[] => []) };
}

/**
 * The plan file as a JSON Schema (draft 2020-12): its form. What only shows between parts (dangling ids, a playlist in itself), and
 * what is more than form (a rule, a zone, a selector), `readPlan` alone can tell.
 */
export function planJsonSchema(): object {
  return { title: 'Lanternpost plan file', ...z.toJSONSchema(planSchema, { io: 'input', unrepresentable: 'any' }) };
}

export type { Network } from './kinds/network';
export type { Calendar } from './kinds/calendar';
export type { Profile } from './kinds/profile';
export type { Site } from './kinds/site';
export type { Screen } from './kinds/screen';
export type { Bulletin } from './kinds/bulletin';
export type { Cue } from './kinds/cue';
export type { Layout, Zone } from './kinds/layout';
export type { Media } from './kinds/media';
export type { Item, Playlist } from './kinds/playlist';
export type { Board, BoardButton, ButtonColour } from './kinds/board';
export type { Booking } from './kinds/booking';
export type { Content } from './contents';
export type { OpeningHours, When } from '../when/schema';
