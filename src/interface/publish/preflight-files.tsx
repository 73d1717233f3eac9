'use client';

import Link from 'next/link';
import { newMisfits, newUnplayable, type Misfit } from '@/core/forecast';
import { isShown } from '@/core/plan';
import { cantPlayWords } from '@/core/profiles';
import { thumbnailOf, useIndex } from '@/interface/data/provider';
import { useLines } from '@/interface/data/queries';
import type { NamedPlan } from '@/interface/data/state';
import { ask, useNewest } from '@/interface/forecast/client';
import { FitDrawing } from '@/interface/kit/content/fit-drawing';
import { counted } from '@/interface/kit/words/format';
import { FIT_WORDS } from '@/interface/kit/words/media-words';
import { pathTo } from '@/interface/kit/content/path-to';
import { standingWords } from '@/interface/library/fit';
import { NamedScreens } from './named-screens';

/** At most this many are listed at first. */
const MOST = 5;
/** The longer side of a drawn screen, in pixels. */
const DRAWN = 72;

/** The screens that changes touch, and the plans without them and with them. */
interface Changed {
  readonly before: NamedPlan;
  readonly after: NamedPlan;
  readonly screens: readonly string[];
}

/** What does not fit on the screens that show it, each drawn: what these changes bring alone. */
export function Misfits({ before, after, screens }: Changed) {
  const index = useIndex(after.plan);
  const question = { kind: 'misfits', screens } as const;
  const found = useNewest(
    async () => newMisfits(await ask(before, question), await ask(after, question)),
    [before, after, screens.join()],
  );
  if (!found || found.length === 0) return null;
  const row = ({ media, fit, size, standing, screens: where }: Misfit) => {
    const file = index.media.get(media);
    if (!file || !isShown(file)) return null;
    return (
      <li key={`${media} ${fit} ${size.width} ${size.height}`} className="flex items-center gap-3 py-1.5">
        <span className="flex w-18 shrink-0 justify-center">
          <FitDrawing file={file} src={thumbnailOf(file)} screen={size} fit={fit} longest={DRAWN} />
        </span>
        <p className="min-w-0 text-sm">
          <Link href={pathTo({ kind: 'media', id: media })} className="text-tide underline underline-offset-2">
            {file.name}
          </Link>{' '}
          {standingWords(standing)}
          <span className="block text-faint">
            {file.width} × {file.height}, {FIT_WORDS[fit]}, on {size.width} × {size.height}:{' '}
            {where.length > 2 ? counted(where.length, 'screen') : <NamedScreens ids={where} index={index} />}
          </span>
        </p>
      </li>
    );
  };
  return (
    <section aria-label="Sizes that do not match" className="mt-2">
      <h3 className="text-base">
        {counted(found.length, 'picture that does not match its screens', 'pictures that do not match their screens')}
      </h3>
      <ul>{found.slice(0, MOST).map(row)}</ul>
      {found.length > MOST && (
        <details>
          <summary className="cursor-pointer py-1 text-sm text-tide">{found.length - MOST} more</summary>
          <ul>{found.slice(MOST).map(row)}</ul>
        </details>
      )}
    </section>
  );
}

/** What these changes give to screens that can't play it, at any time: by what their players say, else by their profiles. */
export function Unplayables({ before, after, screens }: Changed) {
  const index = useIndex(after.plan);
  const lines = useLines();
  const meant = new Set(screens);
  const told = (lines ?? []).flatMap(({ id, kinds, codecs }) =>
    (kinds || codecs) && meant.has(id) ? [[id, { kinds, codecs }] as const] : [],
  );
  const question = { kind: 'unplayable', told } as const;
  const found = useNewest(
    async () => newUnplayable(await ask(before, question), await ask(after, question)),
    [before, after, JSON.stringify(told)],
  );
  if (!found || found.length === 0) return null;
  return (
    <section aria-label="What can’t be played" className="mt-2">
      <h3 className="text-base">{counted(found.length, 'file')} that some screens can’t play</h3>
      <ul>
        {found.map(({ media, reason, screens: where }) => (
          <li key={`${media} ${reason}`} className="border-l-2 border-dusk py-1 pl-3 text-sm">
            <Link href={pathTo({ kind: 'media', id: media })} className="text-tide underline underline-offset-2">
              {index.media.get(media)?.name ?? media}
            </Link>
            {' is passed over on '}
            <NamedScreens ids={where} index={index} />: {where.length === 1 ? 'it' : 'each'}{' '}
            {cantPlayWords(reason, index.media.get(media))}.
          </li>
        ))}
      </ul>
    </section>
  );
}
