'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { ShownMedia } from '@/core/plan';

/** Where the point is in hundredths: as exact as a person means it. */
const toStep = (part: number) => Math.round(Math.min(1, Math.max(0, part)) * 100) / 100;

/** A key's step, in parts of the picture. */
const STEPS: Readonly<Record<string, readonly [x: number, y: number]>> = {
  ArrowLeft: [-0.02, 0],
  ArrowRight: [0.02, 0],
  ArrowUp: [0, -0.02],
  ArrowDown: [0, 0.02],
};

/**
 * A picture on which you choose, by a click or by arrow keys, the point that stays visible when it is cropped to fill a screen. Choosing the
 * middle keeps no point.
 */
export function FocusPicker({
  file,
  src,
  onChange,
}: {
  file: ShownMedia;
  src: string | undefined;
  onChange: (focus: [x: number, y: number] | undefined) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [x, y] = file.focus ?? [0.5, 0.5];
  const set = (nextX: number, nextY: number) => {
    const next: [number, number] = [toStep(nextX), toStep(nextY)];
    onChange(next[0] === 0.5 && next[1] === 0.5 ? undefined : next);
  };
  const press = (event: PointerEvent) => {
    const { left, top, width, height } = box.current?.getBoundingClientRect() ?? new DOMRect(0, 0, 1, 1);
    set((event.clientX - left) / width, (event.clientY - top) / height);
  };
  const step = (event: KeyboardEvent) => {
    const by = STEPS[event.key];
    if (event.key === 'Home') set(0.5, 0.5);
    else if (by) set(x + by[0], y + by[1]);
    else return;
    event.preventDefault();
  };
  return (
    <div
      ref={box}
      className="relative max-h-[22rem] max-w-full cursor-crosshair overflow-hidden bg-well"
      style={{
        aspectRatio: `${file.width} / ${file.height}`,
        width: `min(100%, ${(22 * file.width) / file.height}rem)`,
      }}
      onPointerDown={press}
    >
      {src && <img src={src} alt={file.name} draggable={false} className="size-full" />}
      <div
        role="slider"
        tabIndex={0}
        aria-label="Focus: the point that stays visible when the picture is cropped"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(x * 100)}
        aria-valuetext={`${Math.round(x * 100)} % from the left, ${Math.round(y * 100)} % from the top`}
        onKeyDown={step}
        className="absolute size-7 -translate-1/2 rounded-full border-2 border-[#fff] outline-2 outline-[#000] focus-visible:outline-4 focus-visible:outline-dusk"
        style={{ left: `${x * 100}%`, top: `${y * 100}%` }}
      >
        <span
          aria-hidden
          className="absolute top-1/2 left-1/2 size-1.5 -translate-1/2 rounded-full bg-[#fff] outline-1 outline-[#000]"
        />
      </div>
    </div>
  );
}
