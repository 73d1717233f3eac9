import type { Target } from './schemas';

/**
 * What the event stream carries, once for both sides: the server writes by it, a player reads by it. A player passes over what it
 * does not know, so that a newer server can say more. Without schemas, so that players stay small; `schemas.ts` describes the same.
 */
export interface Messages {
  /** What to play, at once and at every change. */
  readonly target: Target;
  /** The screen was given to another player, or to none. */
  readonly unpaired: Readonly<Record<string, never>>;
  /** A person is waiting for this player: failed work is tried again at once. */
  readonly hurry: Readonly<Record<string, never>>;
}

export type MessageKind = keyof Messages;
export type Message = { readonly [K in MessageKind]: { readonly kind: K; readonly data: Messages[K] } }[MessageKind];

type Loose = Readonly<Record<string, unknown>>;
const isObject = (value: unknown): value is Loose => typeof value === 'object' && value !== null;

/** Whether a value is a target of ours: what a portal or a proxy answers is not. */
export function isTarget(value: unknown): value is Target {
  if (!isObject(value) || !isObject(value.screen)) return false;
  const { screen, edition, program, serverTime } = value;
  return (
    typeof screen.id === 'string' &&
    typeof screen.name === 'string' &&
    (edition === null || Number.isInteger(edition)) &&
    (program === null || isHash(program)) &&
    typeof serverTime === 'number' &&
    isSource(value.source) &&
    (value.glimpses === undefined || isGlimpses(value.glimpses)) &&
    (value.commands === undefined || (Array.isArray(value.commands) && value.commands.every(isCommand))) &&
    (value.firings === undefined || (Array.isArray(value.firings) && value.firings.every(isFiring))) &&
    (value.coming === undefined || (Array.isArray(value.coming) && value.coming.every(isPlanned)))
  );
}

const isCommand = (value: unknown): boolean =>
  isObject(value) &&
  typeof value.id === 'string' &&
  typeof value.kind === 'string' &&
  Number.isInteger(value.at) &&
  Number.isInteger(value.expires);
const isFiring = (value: unknown): boolean =>
  isObject(value) &&
  typeof value.id === 'string' &&
  typeof value.cue === 'string' &&
  Number.isInteger(value.at) &&
  Number.isInteger(value.late) &&
  (value.end === undefined || value.end === true);
const isGlimpses = (value: unknown): boolean =>
  isObject(value) &&
  typeof value.allowed === 'boolean' &&
  (value.everyMs === undefined || Number.isInteger(value.everyMs));
const isPlanned = (value: unknown): boolean =>
  isObject(value) &&
  Number.isInteger(value.at) &&
  (value.program === null || isHash(value.program)) &&
  isSource(value.source);
const isSource = (value: unknown): boolean => value === undefined || typeof value === 'string';
const isHash = (value: unknown): boolean => typeof value === 'string' && /^[0-9a-f]{64}$/.test(value);

const HOLDS: { readonly [K in MessageKind]: (data: unknown) => data is Messages[K] } = {
  target: isTarget,
  unpaired: (data): data is Messages['unpaired'] => isObject(data),
  hurry: (data): data is Messages['hurry'] => isObject(data),
};

/** A message as an event of the stream. */
export const eventOf = ({ kind, data }: Message) => ({ event: kind, data: JSON.stringify(data) });

/** The message of an event; null for one that is not known, or not well-formed. */
export function messageOf(event: string | undefined, text: string): Message | null {
  if (event === undefined || !Object.hasOwn(HOLDS, event)) return null;
  const kind = event as MessageKind;
  try {
    const data: unknown = JSON.parse(text);
    return HOLDS[kind](data) ? ({ kind, data } as Message) : null;
  } catch {
    return null;
  }
}
