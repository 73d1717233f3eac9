'use client';

import { useRef } from 'react';
import type { Turn } from '@/core/forecast';
import { stretched } from './stretch';
import { useEscape } from './use-escape';

/** The end of a turn, to be pulled: in half seconds, with Shift in tenths; Escape leaves it as it was. */
export function TurnEnd({
  turn,
  nth,
  span,
  pulledMs,
  onPull,
  onDone,
}: {
  turn: Turn;
  /** Of how many turns of its item its end is, which all last as long. */
  nth: number;
  /** What the strip's width is in time, in milliseconds. */
  span: number;
  /** The new duration while the end is being pulled. */
  pulledMs: number | null;
  onPull: (durationMs: number | null) => void;
  onDone: (durationMs: number) => void;
}) {
  /** Where the pull began, the duration then, the milliseconds of a pixel, and the duration now. */
  const held = useRef<{ x: number; durationMs: number; msPerPx: number; toMs: number } | null>(null);
  const leave = () => {
    held.current = null;
    onPull(null);
  };
  useEscape(pulledMs !== null, leave);
  return (
    <span
      aria-hidden
      data-end={turn.item}
      className="absolute inset-y-0 z-10 w-2.5 -translate-x-2 cursor-ew-resize touch-none hover:bg-lamp/70"
      style={{ left: `${(100 * (turn.startMs + turn.durationMs)) / span}%` }}
      onPointerDown={(event) => {
        const width = event.currentTarget.closest('[data-strip]')?.clientWidth ?? 0;
        if (event.button !== 0 || width === 0) return;
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = {
          x: event.clientX,
          durationMs: turn.durationMs,
          msPerPx: span / width / nth,
          toMs: turn.durationMs,
        };
      }}
      onPointerMove={(event) => {
        const from = held.current;
        if (!from) return;
        from.toMs = stretched(from.durationMs, (event.clientX - from.x) * from.msPerPx, event.shiftKey);
        onPull(from.toMs);
      }}
      onPointerUp={() => {
        const from = held.current;
        held.current = null;
        if (from && from.toMs !== from.durationMs) onDone(from.toMs);
        else onPull(null);
      }}
      onPointerCancel={leave}
    >
      {pulledMs !== null && (
        <span className="absolute top-1 right-2.5 bg-paper px-1 font-code text-xs text-ink">{pulledMs / 1000} s</span>
      )}
    </span>
  );
}
