'use client';

import { useRef, useState, type MouseEvent, type PointerEvent } from 'react';
import { boxBetween, meets, type Box } from './selection';

/** So far the pointer goes before a press is a drag, in pixels. */
const DRAG_FROM = 6;

interface Drag {
  readonly x: number;
  readonly y: number;
  /** What was chosen before, where it is added to. */
  readonly more: boolean;
  moved: boolean;
}

/** A rectangle drawn by the mouse over tiles: those that it meets are chosen. Fingers scroll instead. */
export function useLasso(onChoose: (ids: readonly string[], more: boolean) => void) {
  const drag = useRef<Drag | null>(null);
  const drawn = useRef(false);
  const [box, setBox] = useState<Box | null>(null);
  const end = () => {
    drag.current = null;
    setBox(null);
  };
  return {
    box,
    /** For the element around the tiles. */
    hears: {
      onPointerDown(event: PointerEvent<HTMLElement>) {
        if (event.pointerType !== 'mouse' || event.button !== 0 || event.shiftKey) return;
        // A lasso can't start on fields above the tiles, nor on the scroll bar.
        const on = event.target as HTMLElement;
        if (on.closest('input, select, button:not([data-screen])')) return;
        const { left } = event.currentTarget.getBoundingClientRect();
        if (event.clientX - left > event.currentTarget.clientWidth) return;
        drawn.current = false;
        drag.current = { x: event.clientX, y: event.clientY, more: event.ctrlKey || event.metaKey, moved: false };
      },
      onPointerMove(event: PointerEvent<HTMLElement>) {
        const begun = drag.current;
        if (!begun) return;
        if (!begun.moved && Math.hypot(event.clientX - begun.x, event.clientY - begun.y) < DRAG_FROM) return;
        if (!begun.moved) event.currentTarget.setPointerCapture(event.pointerId);
        begun.moved = true;
        setBox(boxBetween(begun, { x: event.clientX, y: event.clientY }));
      },
      onPointerUp(event: PointerEvent<HTMLElement>) {
        const begun = drag.current;
        end();
        if (!begun?.moved) return;
        const over = boxBetween(begun, { x: event.clientX, y: event.clientY });
        const met = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-screen]')].filter((tile) =>
          meets(over, tile.getBoundingClientRect()),
        );
        onChoose(
          met.map((tile) => tile.dataset.screen ?? ''),
          begun.more,
        );
        drawn.current = true;
      },
      onPointerCancel: end,
      // The click that ends a drag is none.
      onClickCapture(event: MouseEvent) {
        if (drawn.current) event.stopPropagation();
        drawn.current = false;
      },
    },
  };
}
