'use client';

import { useMemo, useState } from 'react';
import { FITS, type Fit, type Screen, type ShownMedia } from '@/core/plan';
import { FIT_WORDS } from '@/interface/kit/words/media-words';
import { counted } from '@/interface/kit/words/format';
import { FitDrawing } from '@/interface/kit/content/fit-drawing';
import { standingWords, standings } from './fit';

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
  if (screens.length === 0) return <p className="text-sm text-faint">You have no screens yet.</p>;
  return (
    <>
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
        <legend className="sr-only">How it fits</legend>
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
            <FitDrawing file={file} src={src} screen={one} fit={fit} longest={DRAWN} />
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
