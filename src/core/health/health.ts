import type { Instant } from '../instant';

/** How a screen and its player were over time. Pure, for services and pages. */

export const STATES = ['lit', 'behind', 'dark', 'resting', 'unpaired'] as const;
/** How a screen is, by what its player told last. */
export type State = (typeof STATES)[number];

/** What a person should know of comes first. */
export const STATES_BY_NEED: readonly State[] = ['dark', 'behind', 'unpaired', 'lit', 'resting'];

/** A screen's state from an instant on. */
export interface Since {
  readonly at: Instant;
  readonly state: State;
}

/** A stretch of time in which a screen's state stayed the same; null: nothing was written down then. */
export interface StateSpan {
  readonly from: Instant;
  readonly to: Instant;
  readonly state: State | null;
}

/** The stretches of `[from, to)`, by the instants at which the state changed: ascending, one of them before `from` if it is known. */
export function stateSpans(changes: readonly Since[], from: Instant, to: Instant): StateSpan[] {
  const edges = [{ at: -Infinity, state: null }, ...changes];
  return edges.flatMap(({ at, state }, i): StateSpan[] => {
    const begins = Math.max(from, at);
    const ends = Math.min(to, edges[i + 1]?.at ?? Infinity);
    return begins < ends ? [{ from: begins, to: ends, state }] : [];
  });
}

/** How long a screen was in each state, in milliseconds. */
export function timeIn(spans: readonly StateSpan[]): ReadonlyMap<State, number> {
  const times = new Map<State, number>();
  for (const { state, from, to } of spans) if (state) times.set(state, (times.get(state) ?? 0) + to - from);
  return times;
}

/** What a player measured at an instant. Left out: what it can't measure. */
export interface Sample {
  readonly at: Instant;
  /** Degrees Celsius. */
  readonly temperature?: number;
  /** Share of its memory that is used, from 0 to 1. */
  readonly memory?: number;
  /** How busy its processors are: 1 is one of them all the time. */
  readonly load?: number;
  /** Share of its storage that is used, from 0 to 1. */
  readonly storage?: number;
  /** How far its own clock is from the server's, in milliseconds: positive if it is slow. */
  readonly clock?: number;
  /** How fast its last file came, in bytes a second. */
  readonly line?: number;
}

export const MEASURES = ['temperature', 'memory', 'load', 'storage', 'clock', 'line'] as const;
export type Measure = (typeof MEASURES)[number];

/** What a trouble is, whatever its numbers are by now: "Clock 4 min slow" a minute ago and "Clock 5 min slow" are one. */
export const troubleKind = (text: string): string => text.replace(/\d[\d.,:]*(?: (?:s|min)\b)?/g, '#');
