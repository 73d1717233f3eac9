'use client';

import { useDeferredValue, useRef, useState, type ChangeEvent } from 'react';
import { readMediaSearch, sizeFit, type Media, type WantedSize } from '@/core';
import { useLibrary, type LibraryFilters } from '@/interface/data/queries';
import { thumbnailOf, useFromNetwork, useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/button';
import { Empty } from '@/interface/kit/empty';
import { Input } from '@/interface/kit/field';
import { counted, duration, megabytes } from '@/interface/kit/format';
import { More } from '@/interface/kit/more';
import { Sheet } from '@/interface/kit/sheet';
import { Thumb } from '@/interface/kit/thumb';
import { useWanted } from '@/interface/shell/use-wanted';
import { MediaSheet } from './media-sheet';
import { isOfSystem } from '@/interface/sending/dropped';
import { senderOf } from '@/interface/sending/use-sending';
import { NarrowRow } from './narrow-row';
import { RoomLine } from './room-line';
import { UploadTray } from './upload-tray';

/** The network's media, a page at a time; files may be dropped anywhere. */
export function LibraryPlace() {
  const { draft, hold } = useNetwork('draft', 'hold');
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  useWanted((wanted) => setOpen(wanted.get('media')));
  const picker = useRef<HTMLInputElement>(null);
  const folders = useRef<HTMLInputElement | null>(null);

  const meant = useDeferredValue(search.trim());
  const [filters, setFilters] = useState<LibraryFilters>({});
  const { size } = readMediaSearch(meant);
  const { files, total, failed, hasMore, more } = useLibrary(meant, filters);
  const chosen = draft.media.find((media) => media.id === open);

  const sender = senderOf(useFromNetwork((network) => network.view.me));
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    sender.add([...(event.target.files ?? [])].filter(({ name }) => !isOfSystem(name)));
    event.target.value = '';
  };

  return (
    <div className="min-h-full px-3 pb-8 sm:px-6">
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
        <h1 className="sr-only">Library</h1>
        <div className="w-full sm:w-72">
          <Input
            data-search
            aria-label="Find media"
            placeholder="Find by name, tag, kind or size"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
        <p className="text-faint">{total !== undefined && counted(total, 'file')}</p>
        <p className="ml-auto text-sm text-faint max-lg:hidden">Drop or paste files anywhere, or</p>
        <span className="flex items-center gap-2 max-lg:ml-auto">
          <Button variant="main" onClick={() => picker.current?.click()}>
            Choose files
          </Button>
          <Button onClick={() => folders.current?.click()}>Choose a folder</Button>
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
      <RoomLine above />
      <UploadTray />
      {failed ? (
        <p role="alert" className="py-10 text-brick">
          The library does not answer: try again in a moment.
        </p>
      ) : files === undefined || total === undefined ? null : files.length === 0 &&
        meant === '' &&
        Object.keys(filters).length === 0 ? (
        <Empty title="Nothing in the library yet">
          Drop pictures and films here. They are measured, turned upright and kept once.
        </Empty>
      ) : files.length === 0 ? (
        <p className="py-10 text-faint">No file has all of this in its name, tags, kind or size.</p>
      ) : (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(130px,1fr))] gap-x-5 sm:grid-cols-[repeat(auto-fill,minmax(168px,1fr))] gap-y-6">
          {files.map((file) => (
            <Card
              key={file.id}
              file={file}
              wanted={size}
              onOpen={() => {
                hold([file]);
                setOpen(file.id);
              }}
            />
          ))}
        </ul>
      )}
      <RoomLine />
      {hasMore && files && total !== undefined && <More left={total - files.length} onMore={more} />}
      <Sheet title={chosen?.name ?? ''} open={chosen !== undefined} onClose={() => setOpen(null)}>
        {chosen && <MediaSheet key={chosen.id} media={chosen} onGone={() => setOpen(null)} />}
      </Sheet>
    </div>
  );
}

function Card({ file, wanted, onOpen }: { file: Media; wanted: WantedSize | null; onOpen: () => void }) {
  const { id, name, kind, width, height, bytes, durationMs, tags = [] } = file;
  return (
    <li>
      <button type="button" data-media={id} onClick={onOpen} className="block w-full text-left">
        <span className="flex h-28 items-end">
          <Thumb src={thumbnailOf(file)} alt="" className="max-h-28 max-w-full" />
        </span>
        <span className="mt-1.5 block truncate font-semibold">{name}</span>
        <span className="block font-code text-[11px] text-faint">
          {width}×{height}
          {kind === 'video' && durationMs !== undefined && ` · ${duration(durationMs)}`} · {megabytes(bytes)}
        </span>
        {wanted && <span className="block text-sm font-semibold">{fitWordsOf(file, wanted)}</span>}
        <span className="block truncate text-sm text-tide">{tags.join(', ')}</span>
      </button>
    </li>
  );
}

/** How a file fits a size that is looked for: "exactly", "same shape, reduced to 50 %". */
function fitWordsOf(file: Media, wanted: WantedSize): string {
  const fit = sizeFit(file, wanted);
  if (fit === 'exact') return 'exactly this size';
  return fit > 1 ? `same shape, enlarged ${fit.toFixed(1)} times` : `same shape, reduced to ${Math.round(fit * 100)} %`;
}
