'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState, type ReactNode } from 'react';
import { changed, isShown, removed, type Media } from '@/core/plan';
import { done } from '@/core/refusal';
import { thumbnailOf, useNetwork } from '@/interface/data/provider';
import { useMediaExtras } from '@/interface/data/queries';
import { NextShown } from '@/interface/forecast/next-shown';
import { OnAir } from '@/interface/forecast/on-air';
import { Archive, Archived } from '@/interface/kit/content/archive';
import { BookIt } from '@/interface/kit/content/book-it';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { duration, megabytes } from '@/interface/kit/words/format';
import { Sheet } from '@/interface/kit/controls/sheet';
import { UsedIn } from '@/interface/kit/content/used-in';
import { FileForm } from './file-form';
import { lastPlace } from './last-place';
import { FocusPicker } from './focus-picker';
import { OnOurScreens } from './on-our-screens';
import { PutIn } from './put-in';
import { PutOnScreens } from './put-on-screens';
import { Versions } from './versions';

/** A file by its id, fetched where the page's plan does not hold it. */
export function FileById({ id }: { id: string }) {
  const { draft, hold } = useNetwork('draft', 'hold');
  const held = draft.media.find((one) => one.id === id);
  const { data: extras, isError } = useMediaExtras(id);
  useEffect(() => {
    if (!held && extras) hold([extras.file]);
  }, [held, extras, hold]);
  if (held) return <FilePage key={held.id} file={held} />;
  if (!isError) return <p className="px-6 py-10 text-faint">Loading the file…</p>;
  return (
    <Empty
      title="No such file"
      action={
        <Link href="/library" className="text-tide underline">
          See the library
        </Link>
      }
    >
      It may have been removed.
    </Empty>
  );
}

/** One file: what it is, how it fits our screens, when it shows next, where it is used, and the little that can be changed. */
function FilePage({ file }: { file: Media }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const router = useRouter();
  const [onScreens, setOnScreens] = useState(false);
  const { data: extras } = useMediaExtras(file.id);
  const src = thumbnailOf(file);
  const facts = [
    isShown(file) ? `${file.width} × ${file.height}` : null,
    extras?.codec ?? file.type,
    megabytes(file.bytes),
    file.kind !== 'image' && file.durationMs !== undefined ? duration(file.durationMs) : null,
    file.audio ? 'with sound' : null,
  ];
  return (
    <div className="px-3 py-4 sm:px-6">
      <header className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <Link href={lastPlace()} className="shrink-0 text-tide underline underline-offset-2">
          All files
        </Link>
        <h1 className="min-w-0 font-heading text-2xl font-bold break-words">{file.name}</h1>
        <p className="font-code text-xs text-faint">{facts.filter(Boolean).join(' · ')}</p>
      </header>
      {file.archived && <Archived noun="file" />}
      <div className="mt-4 grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="min-w-0 space-y-8">
          <Preview file={file} src={src} />
          {isShown(file) && (
            <Part title="On our screens">
              <OnOurScreens file={file} src={src} screens={draft.screens} />
            </Part>
          )}
          {extras && extras.renditions.length > 0 && (
            <Part title="Made for our screens">
              <ul className="max-w-md text-sm">
                <Rendition size={sizeOf(file)} words={`${megabytes(file.bytes)}, the file`} />
                {extras.renditions.map(({ width, height, bytes, error }) => (
                  <Rendition
                    key={`${width}x${height}`}
                    size={`${width} × ${height}`}
                    words={error ?? (bytes === null ? 'being made' : megabytes(bytes))}
                  />
                ))}
              </ul>
            </Part>
          )}
        </div>
        <div className="min-w-0 space-y-8">
          <FileForm media={file} />
          {isShown(file) && (
            <>
              <Part title="Shows next">
                <NextShown media={file.id} />
              </Part>
              <Part title="On air">
                <OnAir kind="media" id={file.id} />
              </Part>
            </>
          )}
          <Part title="Put it in">
            <div className="space-y-2">
              <PutIn act="Put it in" filesOf={() => Promise.resolve(done([file]))} />
              {isShown(file) && (
                <p className="flex items-center gap-4">
                  <Button needs="plan" onClick={() => setOnScreens(true)}>
                    Put on screens…
                  </Button>
                  <BookIt content={`media:${file.id}`} />
                </p>
              )}
            </div>
            <Sheet title={`Put “${file.name}” on screens`} open={onScreens} onClose={() => setOnScreens(false)}>
              <PutOnScreens files={[file]} onDone={() => setOnScreens(false)} />
            </Sheet>
          </Part>
          <Part title="Used in">
            <UsedIn plan={draft} kind="media" object={file} />
          </Part>
          {extras && (
            <Part title="Versions">
              <Versions file={file} versions={extras.versions} />
            </Part>
          )}
          <p className="flex flex-wrap gap-x-5 gap-y-3">
            <Archive kind="media" object={file} />
            <Button
              needs="plan"
              variant="grave"
              onClick={() =>
                void edit([removed('media', file)], `“${file.name}” was deleted. Ctrl Z brings it back.`).then(
                  (result) => result.ok && router.push('/library'),
                )
              }
            >
              Delete from the library
            </Button>
          </p>
        </div>
      </div>
    </div>
  );
}

const sizeOf = (file: Media) => (isShown(file) ? `${file.width} × ${file.height}` : 'the sound');

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-1.5 text-base">{title}</h2>
      {children}
    </section>
  );
}

/** The file's picture or sound; on a picture you choose the point that stays visible when it is cropped. */
function Preview({ file, src }: { file: Media; src: string | undefined }) {
  const { edit } = useNetwork('edit');
  const whole = `/api/files/${file.sha256}`;
  return (
    <section aria-label="Preview" className="space-y-4">
      {file.kind === 'sound' && src && <img src={src} alt="" className="max-h-48 w-full bg-well object-contain" />}
      {/* An operator's own sound has no captions to show. */}
      {/* eslint-disable-next-line jsx-a11y/media-has-caption */}
      {file.kind === 'sound' && <audio src={whole} controls className="w-full" />}
      {file.kind === 'video' && (
        <video src={whole} poster={src} controls muted className="max-h-[22rem] w-full bg-[#000]" />
      )}
      {isShown(file) && (
        <div>
          <FocusPicker
            file={file}
            src={file.kind === 'image' ? whole : src}
            onChange={(focus) => void edit(changed('media', file, { focus }))}
          />
          <p className="mt-1.5 text-sm text-faint">
            The ring marks the point that stays visible when the picture is cropped. Click, or use the arrow keys, to
            move it.
          </p>
        </div>
      )}
    </section>
  );
}

function Rendition({ size, words }: { size: string; words: string }) {
  return (
    <li className="flex justify-between border-b border-rule py-1">
      <span className="font-code text-xs">{size}</span>
      <span>{words}</span>
    </li>
  );
}
