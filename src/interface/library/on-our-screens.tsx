'use client';

import { useMemo, useState } from 'react';
import { FITS, type Fit, type Screen, type ShownMedia } from '@/core';
import { FIT_WORDS } from '@/interface/kit/media-words';
import { counted } from '@/interface/kit/format';
import { standingWords, standings, type Standing } from './fit';

/** The longer side of a drawing, in pixels. */
const DRAWN = 132;

/** What a file is worth on each size of our screens: a drawing and a word for each, by the fit that is looked at. */
export function OnOurScreens({
  file,
  src,
  screens,
}: {
  file: ShownMedia;
  src: string | undefined;
  screens: readonly Screen[];
}) {
  const [fit, setFit] = useState<Fit>('whole');
  const all = useMemo(() => standings(file, screens, fit), [file, screens, fit]);
  if (screens.length === 0) return <p className="text-sm text-faint">There are no screens yet.</p>;
  return (
    <>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
        <legend className="sr-only">As it stands</legend>
        {FITS.map((one) => (
          <label key={one} className="flex items-center gap-1.5">
            <input type="radio" name="fit" className="accent-dusk" checked={fit === one} onChange={() => setFit(one)} />
            {FIT_WORDS[one]}
          </label>
        ))}
      </fieldset>
      <ul className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-5">
        {all.map((one) => (
          <li key={`${one.width}x${one.height}`} className="max-w-40">
            <Drawing file={file} src={src} standing={one} />
            <p className="mt-1.5 font-code text-[11px]">
              {one.width} × {one.height}
            </p>
            <p className="text-sm leading-tight">
              {standingWords(one)} <span className="text-faint">on {counted(one.screens, 'screen')}</span>
            </p>
          </li>
        ))}
      </ul>
    </>
  );
}

/** A screen as large as there is room for, and the file on it, as a player puts it there. */
function Drawing({
  file,
  src,
  standing: { width, height, fit },
}: {
  file: ShownMedia;
  src: string | undefined;
  standing: Standing;
}) {
  const scale = DRAWN / Math.max(width, height);
  const box = { width: Math.max(24, width * scale), height: Math.max(16, height * scale) };
  const [x, y] = file.focus ?? [0.5, 0.5];
  const [w, h] = sizeOn(file, { width, height }, fit).map((side) => side * scale) as [number, number];
  return (
    <div className="relative overflow-hidden bg-[#000] outline-1 outline-rule" style={box}>
      {src && (
        <img
          src={src}
          alt=""
          className="absolute max-w-none"
          // Where there is room beside it, it stands by its focus as a browser's object-position has it.
          style={{ width: w, height: h, left: (box.width - w) * x, top: (box.height - h) * y }}
        />
      )}
    </div>
  );
}

/** A file's size on a screen, in the screen's pixels. */
function sizeOn(file: ShownMedia, screen: { width: number; height: number }, fit: Fit): [number, number] {
  const [x, y] = [screen.width / file.width, screen.height / file.height];
  const scale = { whole: Math.min(x, y), fill: Math.max(x, y), exact: 1, stretch: NaN }[fit];
  return fit === 'stretch' ? [screen.width, screen.height] : [file.width * scale, file.height * scale];
}
