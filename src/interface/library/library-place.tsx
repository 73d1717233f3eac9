'use client';

import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { useDeferredValue, useEffect, useRef, useState, type ChangeEvent } from 'react';
import { isShown, readMediaSearch, sizeFit, type Media, type ShownMedia, type WantedSize } from '@/core/plan';
import { useLibrary, type LibraryFilters } from '@/interface/data/queries';
import { thumbnailOf, useFromNetwork, useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { SearchField } from '@/interface/kit/controls/field';
import { counted, duration, megabytes } from '@/interface/kit/words/format';
import { More } from '@/interface/kit/controls/more';
import { Thumb } from '@/interface/kit/content/thumb';
import { isOfSystem } from '@/interface/sending/dropped';
import { senderOf } from '@/interface/sending/use-sending';
import { ChosenFiles } from './chosen-files';
import { FileTroubleNote } from './file-trouble';
import { keepPlace } from './last-place';
import { NarrowRow } from './narrow-row';
import { RoomLine } from './room-line';
import { SavedSearches } from './saved-searches';
import { UploadTray } from './upload-tray';
import { useChosen } from './use-chosen';

/** The network's media, a page at a time; files may be dropped anywhere. */
export function LibraryPlace() {
  const { hold } = useNetwork('hold');
  const asked = useSearchParams();
  const [search, setSearch] = useState(asked.get('find') ?? '');
  const picker = useRef<HTMLInputElement>(null);
  const folders = useRef<HTMLInputElement | null>(null);

  const meant = useDeferredValue(search.trim());
  const [filters, setFilters] = useState<LibraryFilters>(() => filtersOf(asked));
  usePlace(meant, filters);
  const { size } = readMediaSearch(meant);
  const { files, total, failed, hasMore, more } = useLibrary(meant, filters);

  const chosen = useChosen(files ?? NO_FILES);

  const sender = senderOf(useFromNetwork((network) => network.view.me));
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    sender.add([...(event.target.files ?? [])].filter(({ name }) => !isOfSystem(name)));
    event.target.value = '';
  };

  return (
    <div className="min-h-full px-3 pb-8 sm:px-6">
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
        <h1 className="sr-only">Library</h1>
        <SearchField
          label="Find media"
          placeholder="Find by name, tag, kind or size"
          value={search}
          onChange={setSearch}
        />
        <p className="text-faint">{total !== undefined && counted(total, 'file')}</p>
        <p className="ml-auto text-sm text-faint max-lg:hidden">Drop or paste files anywhere, or</p>
        <span className="flex items-center gap-2 max-lg:ml-auto">
          <Button needs="library" variant="main" onClick={() => picker.current?.click()}>
            Choose files
          </Button>
          <Button needs="library" onClick={() => folders.current?.click()}>
            Choose a folder
          </Button>
        </span>
        <input ref={picker} type="file" multiple hidden onChange={choose} data-testid="files" />
        <input
          ref={(element) => {
            folders.current = element;
            // A folder with all that is in it: no property of React's.
            element?.setAttribute('webkitdirectory', '');
          }}
          type="file"
          multiple
          hidden
          onChange={choose}
          data-testid="folder"
        />
      </div>
      <NarrowRow
        search={meant}
        filters={filters}
        onFilters={setFilters}
        onTag={(tag) => setSearch((now) => `${now.trim()} ${tag}`.trim())}
      />
      <SavedSearches
        query={queryOf(meant, filters)}
        onGo={(query) => {
          const kept = new URLSearchParams(query);
          setSearch(kept.get('find') ?? '');
          setFilters(filtersOf(kept));
        }}
      />
      <FileTroubleNote />
      <RoomLine above />
      <UploadTray />
      {failed ? (
        <p role="alert" className="py-10 text-brick">
          The library isn’t answering. Try again in a moment.
        </p>
      ) : files === undefined || total === undefined ? null : files.length === 0 &&
        meant === '' &&
        Object.keys(filters).length === 0 ? (
        <Empty title="The library is empty">
          Drop pictures, videos and sounds here. Each upload is checked, rotated upright, and stored once.
        </Empty>
      ) : files.length === 0 ? (
        <p className="py-10 text-faint">
          {filters.archived ? 'No archived file' : 'No file'} has all of this in its name, tags, kind or size.
        </p>
      ) : (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(130px,1fr))] gap-x-5 sm:grid-cols-[repeat(auto-fill,minmax(168px,1fr))] gap-y-6">
          {files.map((file) => (
            <Card
              key={file.id}
              file={file}
              wanted={size}
              onOpen={() => hold([file])}
              chosen={chosen.files.has(file.id)}
              choosing={chosen.files.size > 0}
              onChoose={(upTo) => chosen.choose(file, upTo)}
            />
          ))}
        </ul>
      )}
      {chosen.files.size > 0 && total !== undefined && (
        <ChosenFiles chosen={chosen} search={meant} filters={filters} total={total} />
      )}
      <RoomLine />
      {hasMore && files && total !== undefined && <More left={total - files.length} onMore={more} />}
    </div>
  );
}

const NO_FILES: readonly Media[] = [];

const KINDS = ['image', 'video', 'sound'] as const;
const STATES = ['audible', 'unused', 'ending', 'small', 'archived'] as const;

/** What an address narrows the library to. */
function filtersOf(asked: URLSearchParams): LibraryFilters {
  const kind = KINDS.find((one) => one === asked.get('kind'));
  return {
    ...(kind ? { kind } : {}),
    ...Object.fromEntries(STATES.filter((one) => asked.has(one)).map((one) => [one, true])),
  };
}

/** The search as an address has it; empty for none. The same search is always written alike. */
function queryOf(search: string, filters: LibraryFilters): string {
  const query = new URLSearchParams(
    Object.entries(filters)
      .map(([key, value]): [string, string] => [key, String(value)])
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  );
  if (search !== '') query.set('find', search);
  return query.toString();
}

/** Keeps the search in the address, so that going back finds the same. */
function usePlace(search: string, filters: LibraryFilters): void {
  useEffect(() => {
    const query = queryOf(search, filters);
    const path = query === '' ? '/library' : `/library?${query}`;
    keepPlace(path);
    if (path !== location.pathname + location.search) history.replaceState(null, '', path);
  }, [search, filters]);
}

function Card({
  file,
  wanted,
  chosen,
  choosing,
  onOpen,
  onChoose,
}: {
  file: Media;
  wanted: WantedSize | null;
  chosen: boolean;
  /** Whether any is chosen: then the boxes of all are visible. */
  choosing: boolean;
  onOpen: () => void;
  onChoose: (upTo: boolean) => void;
}) {
  const { id, name, kind, bytes, durationMs, tags = [] } = file;
  return (
    <li className={`group relative ${chosen ? 'outline-2 outline-offset-4 outline-dusk' : ''}`}>
      <input
        type="checkbox"
        aria-label={`Choose ${name}`}
        className={`absolute top-1 left-1 z-[1] size-5 accent-dusk ${choosing ? '' : 'opacity-0 group-hover:opacity-100 focus-visible:opacity-100 [@media(hover:none)]:opacity-100'}`}
        checked={chosen}
        onChange={() => undefined}
        onClick={({ shiftKey }) => onChoose(shiftKey)}
      />
      <Link href={`/library/${encodeURIComponent(id)}`} data-media={id} onClick={onOpen} className="block w-full">
        <span className="flex h-28 items-end">
          <Thumb src={thumbnailOf(file)} alt="" className="max-h-28 max-w-full" />
        </span>
        <span className="mt-1.5 block truncate font-semibold">{name}</span>
        <span className="block font-code text-[11px] text-faint">
          {[
            isShown(file) ? `${file.width}×${file.height}` : 'sound',
            kind !== 'image' && durationMs !== undefined ? duration(durationMs) : null,
            megabytes(bytes),
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
        {wanted && isShown(file) && <span className="block text-sm font-semibold">{fitWordsOf(file, wanted)}</span>}
        <span className="block truncate text-sm text-tide">{tags.join(', ')}</span>
      </Link>
    </li>
  );
}

/** How a file fits a size that is looked for: "exactly", "same shape, reduced to 50 %". */
function fitWordsOf(file: ShownMedia, wanted: WantedSize): string {
  const fit = sizeFit(file, wanted);
  if (fit === 'exact') return 'exactly this size';
  return fit > 1 ? `same shape, enlarged ${fit.toFixed(1)} times` : `same shape, reduced to ${Math.round(fit * 100)} %`;
}
