import type { Turn } from '@/core/forecast';

/** The turn of a pass at a time in it, in milliseconds; the last one for what lies past its end; undefined for an empty pass. */
export function turnAt(turns: readonly Turn[], ms: number): Turn | undefined {
  return turns.find((turn) => ms < turn.startMs + turn.durationMs) ?? turns.at(-1);
}

/** Where the next turn, or the one before, begins; from the last the first, and the other way round. */
export function stepFrom(turns: readonly Turn[], ms: number, by: 1 | -1): number {
  const now = turns.findIndex((turn) => ms < turn.startMs + turn.durationMs);
  const place = now < 0 ? turns.length - 1 : now;
  return turns[(place + by + turns.length) % turns.length]?.startMs ?? 0;
}
