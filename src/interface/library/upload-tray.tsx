'use client';

import { Pause, Play, RotateCcw, X } from 'lucide-react';
import { useMemo } from 'react';
import { answered } from '@/interface/data/answered';
import { useFromNetwork } from '@/interface/data/provider';
import { useBatchReady, useRefetch, useUploads } from '@/interface/data/queries';
import { Bar } from '@/interface/kit/controls/bar';
import { Button } from '@/interface/kit/controls/button';
import { bytesOf, counted, megabytes } from '@/interface/kit/words/format';
import { timeLeft } from '@/interface/sending/rate';
import { isOpen, type FileOnItsWay, type Sender } from '@/interface/sending/sender';
import { senderOf, useSending } from '@/interface/sending/use-sending';
import { dismissUploadAction } from '@/web/actions';
import { Batch } from './batch-form';
import { batchMediaAction } from '@/web/actions';
import { PutIn } from './put-in';

/** Uploads that need attention come first, then those under way. */
const ORDER: readonly FileOnItsWay['standing'][] = ['refused', 'lost', 'stalled', 'sending', 'paused', 'waiting', 'in'];

/** Uploads: all together, each by itself, being prepared, and refused, each with a sentence. */
export function UploadTray() {
  const person = useFromNetwork((network) => network.view.me);
  const sender = senderOf(person);
  const files = useSending(sender, (state) => state.files);
  const batch = useSending(sender, (state) => state.batch);
  const uploads = useUploads();
  const refetch = useRefetch('uploads');
  const isQuiet = !files.some(isOpen) && uploads.every(({ error }) => error !== null);
  const isReady = useBatchReady(batch, files.filter(({ standing }) => standing === 'in').length, isQuiet);
  if (files.length + uploads.length === 0) return null;
  const shown = files
    .filter((one) => one.standing !== 'in' || one.said !== null)
    .sort((a, b) => ORDER.indexOf(a.standing) - ORDER.indexOf(b.standing));
  return (
    <section aria-label="Uploads" className="mb-5 border border-rule bg-sheet" data-testid="uploads">
      {batch && files.length > 0 && (
        <div className="space-y-3 border-b border-rule px-4 py-3 last:border-b-0">
          <Together sender={sender} files={files} preparing={uploads.filter(({ error }) => error === null).length} />
          <Batch key={batch} batch={batch} />
          <PutIn filesOf={() => answered(batchMediaAction(batch))} ready={isReady} />
        </div>
      )}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls can be scrolled by keys */}
      <ul tabIndex={0} aria-label="Each file" className="max-h-56 overflow-y-auto -outline-offset-2">
        {shown.map((file) => (
          <OnItsWay key={file.key} file={file} sender={sender} />
        ))}
        {uploads.map(({ id, name, state, progress, error }) => (
          <Row key={id} name={name}>
            {error ? (
              <>
                <Wrong>{error}</Wrong>
                <Act words={`Dismiss ${name}`} onClick={() => void answered(dismissUploadAction(id)).then(refetch)}>
                  <X size={16} aria-hidden />
                </Act>
              </>
            ) : (
              <Progress
                share={progress / 100}
                words={state === 'waiting' ? 'waiting' : `being processed, ${progress} %`}
              />
            )}
          </Row>
        ))}
      </ul>
    </section>
  );
}

function Together({ sender, files, preparing }: { sender: Sender; files: readonly FileOnItsWay[]; preparing: number }) {
  const speed = useSending(sender, (state) => state.speed);
  const { bytes, sent, arrived, known, refused, open, paused } = useMemo(
    () => ({
      bytes: files.reduce((sum, one) => sum + one.bytes, 0),
      sent: files.reduce((sum, one) => sum + one.sent, 0),
      arrived: files.filter(({ standing }) => standing === 'in').length,
      known: files.filter(({ standing, said }) => standing === 'in' && said !== null).length,
      refused: files.filter(({ standing }) => standing === 'refused' || standing === 'lost').length,
      open: files.filter(isOpen).length,
      paused: files.filter(({ standing }) => standing === 'paused').length,
    }),
    [files],
  );
  if (open === 0)
    return (
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="flex-1 text-base">
          {counted(arrived - known, 'file')} added
          {known > 0 && `, ${known} already there`}
          {refused > 0 && `, ${refused} not accepted`}
          {preparing > 0 && `, ${preparing} being processed`}
        </h2>
        <Button variant="quiet" onClick={() => sender.close()}>
          Clear the list
        </Button>
      </div>
    );
  const left = timeLeft(bytes - sent, speed);
  const words = [
    `${arrived} of ${counted(files.length, 'file')}`,
    bytesOf(sent, bytes),
    speed === null ? '' : `${megabytes(speed)}/s`,
    left && `${left} left`,
  ];
  return (
    <div>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="flex-1 text-base">{words.filter(Boolean).join(' · ')}</h2>
        {paused < open && (
          <Button variant="quiet" onClick={() => sender.pauseAll()}>
            Pause all
          </Button>
        )}
        {paused > 0 && (
          <Button variant="quiet" onClick={() => sender.resumeAll()}>
            Continue all
          </Button>
        )}
        <Button variant="quiet" onClick={() => sender.cancelAll()}>
          Cancel all
        </Button>
      </div>
      <Bar share={bytes === 0 ? 0 : sent / bytes} words={`${Math.floor((bytes === 0 ? 0 : sent / bytes) * 100)} %`} />
    </div>
  );
}

const WORDS = {
  waiting: 'waiting',
  stalled: 'connection lost, it will continue by itself',
  paused: 'paused',
} as const;

function OnItsWay({ file, sender }: { file: FileOnItsWay; sender: Sender }) {
  const { key, name, bytes, sent, standing, said } = file;
  const share = bytes === 0 ? 0 : sent / bytes;
  const percent = `${Math.floor(share * 100)} %`;
  const cancel = (
    <Act words={`${isOpen(file) ? 'Cancel' : 'Dismiss'} ${name}`} onClick={() => sender.dismiss(key)}>
      <X size={16} aria-hidden />
    </Act>
  );
  const again = (
    <Act words={`Try ${name} again`} onClick={() => sender.resume(key)}>
      <RotateCcw size={16} aria-hidden />
    </Act>
  );
  switch (standing) {
    case 'refused':
      return (
        <Row name={name}>
          <Wrong>{said}</Wrong>
          {again}
          {cancel}
        </Row>
      );
    case 'lost':
      return (
        <Row name={name}>
          <Wrong>You left the page during the upload. Choose the file again to continue.</Wrong>
          {cancel}
        </Row>
      );
    case 'in':
      return (
        <Row name={name}>
          <span className="flex-1 text-sm text-faint">{said}</span>
          {cancel}
        </Row>
      );
    default:
      return (
        <Row name={name}>
          <Progress
            share={share}
            words={standing === 'sending' ? `sending, ${percent}` : `${WORDS[standing]}, ${percent}`}
          />
          {standing === 'paused' ? (
            <Act words={`Continue with ${name}`} onClick={() => sender.resume(key)}>
              <Play size={16} aria-hidden />
            </Act>
          ) : (
            <Act words={`Pause ${name}`} onClick={() => sender.pause(key)}>
              <Pause size={16} aria-hidden />
            </Act>
          )}
          {cancel}
        </Row>
      );
  }
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <li className="flex flex-wrap items-center gap-x-4 border-b border-rule px-4 py-1.5 last:border-b-0">
      <span className="w-56 truncate font-semibold max-sm:w-full">{name}</span>
      {children}
    </li>
  );
}

function Progress({ share, words }: { share: number; words: string }) {
  return (
    <div className="flex-1">
      <Bar share={share} words={words} />
    </div>
  );
}

function Wrong({ children }: { children: React.ReactNode }) {
  return (
    <span role="alert" className="flex-1 text-brick">
      {children}
    </span>
  );
}

function Act({ words, onClick, children }: { words: string; onClick: () => void; children: React.ReactNode }) {
  return (
    <button type="button" aria-label={words} title={words} onClick={onClick} className="p-1 hover:text-tide">
      {children}
    </button>
  );
}
