'use client';

import { useDeferredValue, useEffect, useRef, useState, type DragEvent } from 'react';
import type { Media } from '@/core';
import { useLibrary, useRefetch } from '@/interface/data/queries';
import { thumbnailOf, useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/button';
import { Empty } from '@/interface/kit/empty';
import { Input } from '@/interface/kit/field';
import { counted, duration, megabytes } from '@/interface/kit/format';
import { More } from '@/interface/kit/more';
import { Sheet } from '@/interface/kit/sheet';
import { Thumb } from '@/interface/kit/thumb';
import { useWanted } from '@/interface/shell/use-wanted';
import { MediaSheet } from './media-sheet';
import { UploadTray, type Sending } from './upload-tray';
import { sendFile } from './send';

/** The network's media, a page at a time; files may be dropped anywhere. */
export function LibraryPlace() {
  const { draft, hold, notify } = useNetwork('draft', 'hold', 'notify');
  const refetch = useRefetch('uploads');
  const [search, setSearch] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  useWanted((wanted) => setOpen(wanted.get('media')));
  const [over, setOver] = useState(false);
  const [sending, setSending] = useState<readonly Sending[]>([]);
  const picker = useRef<HTMLInputElement>(null);
  const count = useRef(0);

  const { files, total, failed, hasMore, more } = useLibrary(useDeferredValue(search.trim()));
  const chosen = draft.media.find((media) => media.id === open);

  const send = async (files: Iterable<File>) => {
    for (const file of files) {
      const key = ++count.current;
      const update = (values: Partial<Sending>) =>
        setSending((list) => list.map((one) => (one.key === key ? { ...one, ...values } : one)));
      setSending((list) => [...list, { key, name: file.name, share: 0, refused: null }]);
      const { refused, known } = await sendFile(file, (share) => update({ share }));
      if (refused) update({ refused });
      else setSending((list) => list.filter((one) => one.key !== key));
      if (known) notify(`The library has this file already, as "${known}".`);
      refetch();
    }
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void send([...event.dataTransfer.files]);
  };
  const hasFiles = (event: DragEvent) => event.dataTransfer.types.includes('Files');
  useEffect(() => {
    if (sending.every((one) => one.refused)) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', warn);
    return () => removeEventListener('beforeunload', warn);
  }, [sending]);

  return (
    // eslint-disable-next-line jsx-a11y/no-static-element-interactions -- dropping is the short way of the button in it
    <div
      className={`min-h-full px-3 pb-8 sm:px-6 ${over ? 'bg-well outline-2 -outline-offset-8 outline-dusk outline-dashed' : ''}`}
      onDragOver={(event) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setOver(false)}
      onDrop={drop}
    >
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
        <h1 className="sr-only">Library</h1>
        <div className="w-full sm:w-72">
          <Input
            data-search
            aria-label="Find media"
            placeholder="Find by name, tag or kind"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
        <p className="text-faint">{total !== undefined && counted(total, 'file')}</p>
        <p className="ml-auto text-sm text-faint max-md:hidden">Drop files anywhere here, or</p>
        <Button variant="main" onClick={() => picker.current?.click()}>
          Choose files
        </Button>
        <input
          ref={picker}
          type="file"
          multiple
          hidden
          accept="image/*,video/*"
          onChange={(event) => {
            void send([...(event.target.files ?? [])]);
            event.target.value = '';
          }}
        />
      </div>
      <UploadTray sending={sending} onDismiss={(key) => setSending((list) => list.filter((one) => one.key !== key))} />
      {failed ? (
        <p role="alert" className="py-10 text-brick">
          The library does not answer: try again in a moment.
        </p>
      ) : files === undefined || total === undefined ? null : files.length === 0 && search.trim() === '' ? (
        <Empty title="Nothing in the library yet">
          Drop pictures and films here. They are measured, turned upright and kept once.
        </Empty>
      ) : files.length === 0 ? (
        <p className="py-10 text-faint">No file has this in its name, tags or kind.</p>
      ) : (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(130px,1fr))] gap-x-5 sm:grid-cols-[repeat(auto-fill,minmax(168px,1fr))] gap-y-6">
          {files.map((file) => (
            <Card
              key={file.id}
              file={file}
              onOpen={() => {
                hold([file]);
                setOpen(file.id);
              }}
            />
          ))}
        </ul>
      )}
      {hasMore && files && total !== undefined && <More left={total - files.length} onMore={more} />}
      <Sheet title={chosen?.name ?? ''} open={chosen !== undefined} onClose={() => setOpen(null)}>
        {chosen && <MediaSheet key={chosen.id} media={chosen} onGone={() => setOpen(null)} />}
      </Sheet>
    </div>
  );
}

function Card({ file, onOpen }: { file: Media; onOpen: () => void }) {
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
        <span className="block truncate text-sm text-tide">{tags.join(', ')}</span>
      </button>
    </li>
  );
}
