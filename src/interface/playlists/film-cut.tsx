'use client';

import { useRef, useState } from 'react';
import type { Media } from '@/core/plan';
import { Button } from '@/interface/kit/controls/button';

/** A piece shorter than this can't be seen. */
const SHORTEST_MS = 100;
/** Arrow keys go by a picture of a film of 25 a second. */
const PICTURE_MS = 40;

const seconds = (ms: number) => (ms / 1000).toFixed(2);

/** A film is cut on its own pictures: where one stands it begins, or ends. */
export function FilmCut({
  name,
  film,
  clip,
  onCut,
}: {
  name: string;
  film: Media;
  clip: readonly [begin: number, end: number] | undefined;
  /** Undefined is the whole film. */
  onCut: (clip: readonly [begin: number, end: number] | undefined) => void;
}) {
  const video = useRef<HTMLVideoElement>(null);
  const length = film.durationMs ?? 0;
  const [begin, end] = clip ?? [0, length];
  const [at, setAt] = useState(begin);
  const seek = (ms: number) => {
    setAt(ms);
    if (!video.current) return;
    video.current.pause();
    video.current.currentTime = ms / 1000;
  };
  const cut = (from: number, to: number) => onCut(from === 0 && to === length ? undefined : [from, to]);
  const play = () => {
    if (!video.current) return;
    video.current.currentTime = begin / 1000;
    void video.current.play().catch(() => undefined);
  };
  return (
    <div role="group" aria-label={`Cut of ${name}`} className="w-72 space-y-1.5 text-sm">
      <video
        ref={video}
        src={`/api/files/${film.sha256}#t=${begin / 1000}`}
        muted
        playsInline
        preload="metadata"
        className="aspect-video w-full bg-[#000] object-contain"
        onTimeUpdate={({ currentTarget }) => {
          if (currentTarget.paused) return;
          const now = Math.round(currentTarget.currentTime * 1000);
          if (now >= end) currentTarget.pause();
          setAt(Math.min(now, end));
        }}
      />
      <div className="relative h-1 bg-well" aria-hidden>
        <div
          className="absolute h-full bg-lamp"
          style={{ left: `${(begin / length) * 100}%`, width: `${((end - begin) / length) * 100}%` }}
        />
      </div>
      <input
        type="range"
        aria-label={`Place in ${name}`}
        aria-valuetext={`${seconds(at)} s`}
        min={0}
        max={length}
        step={PICTURE_MS}
        value={at}
        onChange={({ target }) => seek(Number(target.value))}
        className="w-full accent-dusk"
      />
      <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <Button needs="plan" disabled={at > end - SHORTEST_MS} onClick={() => cut(at, end)}>
          Begin here
        </Button>
        <Button needs="plan" disabled={at < begin + SHORTEST_MS} onClick={() => cut(begin, at)}>
          End here
        </Button>
        <Button variant="quiet" onClick={play}>
          Play it
        </Button>
        <span className="ml-auto font-code text-xs">{seconds(at)} s</span>
      </p>
    </div>
  );
}
