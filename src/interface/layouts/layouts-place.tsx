'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { nameAmong } from '@/core/booking';
import { ARRANGEMENTS, arranged, isTall, type Arrangement } from '@/core/layouts';
import { added, type Layout } from '@/core/plan';
import { WhyNot, useMay } from '@/interface/data/may';
import { useNetwork, useThumbnails } from '@/interface/data/provider';
import { BoardPicture } from '@/interface/kit/content/board-picture';
import { ArrowGroup } from '@/interface/kit/controls/arrow-group';
import { SearchField } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { hasWords } from '@/interface/kit/words/has-words';
import { ArrangementPicture } from './arrangement-picture';
import { commonSizes } from './sizes';
import { stillBoard } from './still-board';

const NAMES = Object.keys(ARRANGEMENTS) as Arrangement[];
/** From so many on, they can be searched. */
const MANY = 8;

/** All layouts, and the arrangements to begin one with. */
export function LayoutsPlace() {
  const { draft, edit } = useNetwork('draft', 'edit');
  const router = useRouter();
  const may = useMay('plan');
  const [wide, tall] = commonSizes(draft.screens);
  const [isForTall, setForTall] = useState(() => draft.screens.filter(isTall).length * 2 > draft.screens.length);
  const [isBusy, setBusy] = useState(false);
  const [search, setSearch] = useState('');
  const size = isForTall ? tall : wide;
  const layouts = draft.layouts
    .filter(({ name }) => hasWords(name, search))
    .sort((a, b) => a.name.localeCompare(b.name));
  const begin = async (arrangement: Arrangement) => {
    setBusy(true);
    const name = nameAmong(new Set(draft.layouts.map((one) => one.name)), ARRANGEMENTS[arrangement]);
    const result = await edit([added('layout', { name, ...size, zones: arranged(arrangement, size) })]);
    if (result.ok) router.push(`/layouts/${result.value.ids[0]}`);
    else setBusy(false);
  };
  return (
    <div className="px-3 pb-8 sm:px-6">
      <h1 className="sr-only">Layouts</h1>
      <section aria-labelledby="begin" className="py-4">
        <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
          <h2 id="begin" className="text-lg">
            Begin with an arrangement
          </h2>
          <fieldset className="flex flex-wrap gap-x-4 text-sm">
            <legend className="sr-only">For which screens</legend>
            {[false, true].map((one) => (
              <label key={String(one)} className="flex min-h-6 items-center gap-2">
                <input
                  type="radio"
                  name="orientation"
                  className="accent-dusk"
                  checked={isForTall === one}
                  onChange={() => setForTall(one)}
                />
                for {one ? 'portrait' : 'landscape'} screens, {(one ? tall : wide).width} × {(one ? tall : wide).height}
              </label>
            ))}
          </fieldset>
        </div>
        <WhyNot needs="plan" />
        <ArrowGroup
          label="Arrangements"
          of={NAMES}
          className="mt-3 flex flex-wrap gap-3"
          button={(name, stop) => (
            <button
              key={name}
              type="button"
              {...stop}
              disabled={!may || isBusy}
              onClick={() => void begin(name)}
              className="group flex w-32 flex-col items-center gap-1.5 border border-rule bg-well px-2 py-2.5 text-sm enabled:hover:border-ink disabled:opacity-50"
            >
              <ArrangementPicture size={size} zones={arranged(name, size)} className="h-16" />
              {ARRANGEMENTS[name]}
            </button>
          )}
        />
      </section>
      {draft.layouts.length === 0 ? (
        <p className="max-w-xl border-t border-rule py-6 text-faint">
          No layouts yet. A layout shows several things on one screen at once, each in a zone of its own: sailings
          beside the weather, a video above a line of text. Choose an arrangement above to make the first.
        </p>
      ) : (
        <section aria-labelledby="all" className="border-t border-rule pt-4">
          <div className="flex flex-wrap items-center gap-3">
            <h2 id="all" className="mr-auto text-lg">
              Your layouts
            </h2>
            {draft.layouts.length >= MANY && (
              <SearchField
                label="Find a layout"
                placeholder="Find a layout"
                value={search}
                onChange={setSearch}
                className="w-full sm:w-72"
              />
            )}
          </div>
          {layouts.length === 0 && (
            <p role="status" className="py-4 text-faint">
              No layout has “{search.trim()}” in its name.
            </p>
          )}
          <ul className="mt-3 flex flex-wrap gap-4">
            {layouts.map((layout) => (
              <Tile key={layout.id} layout={layout} />
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function Tile({ layout }: { layout: Layout }) {
  const { draft } = useNetwork('draft');
  const thumbnail = useThumbnails();
  return (
    <li>
      <Link
        href={`/layouts/${layout.id}`}
        className="flex w-56 flex-col gap-1 border border-rule bg-sheet p-2 hover:border-ink"
      >
        <BoardPicture board={stillBoard(draft, layout)} thumbnail={thumbnail} className="h-28 w-full bg-well" />
        <span className="truncate font-semibold">{layout.name}</span>
        <span className="text-sm text-faint">
          {layout.width} × {layout.height}, {counted(layout.zones.length, 'zone')}
        </span>
      </Link>
    </li>
  );
}
