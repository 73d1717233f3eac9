'use client';

import { useRef, useState } from 'react';
import { isShown, type Media } from '@/core/plan';
import { answered } from '@/interface/data/answered';
import { thumbnailOf, useFromNetwork, useNetwork } from '@/interface/data/provider';
import { useRefetch, useUploads } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { Bar } from '@/interface/kit/controls/bar';
import { Button } from '@/interface/kit/controls/button';
import { dateTime, duration, megabytes } from '@/interface/kit/words/format';
import { Thumb } from '@/interface/kit/content/thumb';
import { isOpen } from '@/interface/sending/sender';
import { senderOf, useSending } from '@/interface/sending/use-sending';
import { bringBackAction, dismissUploadAction } from '@/web/actions';
import type { Version } from '@/services/library';

/** Replaces a file of the plan by another, and brings the earlier one back again. */
export function Versions({ file, versions }: { file: Media; versions: readonly Version[] }) {
  const { notify } = useNetwork('notify');
  const zone = useZone();
  const [busy, setBusy] = useState(false);
  const bringBack = async (version: Version) => {
    setBusy(true);
    const result = await answered(bringBackAction(file.id, version.id));
    setBusy(false);
    notify(
      result.ok ? `“${file.name}” is back to its earlier version. Ctrl Z undoes that.` : result.message,
      !result.ok,
    );
  };
  return (
    <div className="space-y-3 text-sm">
      <Replace file={file} />
      {versions.length > 0 && (
        <ul aria-label="Earlier versions" className="border-t border-rule">
          {versions.map((version) => (
            <li key={version.id} className="flex items-center gap-3 border-b border-rule py-2">
              <Thumb src={thumbnailOf(version.file)} alt="" className="h-10 w-16 shrink-0" />
              <p className="min-w-0 flex-1">
                <span className="block font-code text-xs">{measuresOf(version.file)}</span>
                <span className="text-faint">
                  until {dateTime(Date.parse(version.replacedAt), zone)}
                  {version.by !== null && `, ${version.by}`}
                </span>
              </p>
              <Button needs="library" disabled={busy} onClick={() => void bringBack(version)}>
                Bring back
              </Button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

const measuresOf = (file: Media) =>
  [
    isShown(file) ? `${file.width} × ${file.height}` : 'sound',
    file.kind !== 'image' && file.durationMs !== undefined ? duration(file.durationMs) : null,
    megabytes(file.bytes),
  ]
    .filter(Boolean)
    .join(' · ');

/** Sends a new version and shows the progress; if it can't replace the file, says why and changes nothing. */
function Replace({ file }: { file: Media }) {
  const picker = useRef<HTMLInputElement>(null);
  const sender = senderOf(useFromNetwork((network) => network.view.me));
  const sent = useSending(sender, (state) => state.files).filter(({ replaces }) => replaces === file.id);
  const uploads = useUploads().filter(({ replaces }) => replaces === file.id);
  const refetch = useRefetch('uploads');
  const onItsWay = sent.find(isOpen);
  const refused = sent.find(({ standing }) => standing === 'refused');
  const known = sent.find(({ standing, said }) => standing === 'in' && said !== null);
  const made = uploads.find(({ error }) => error === null);
  const failed = uploads.find(({ error }) => error !== null);
  const letGo = () => {
    for (const { key } of sent.filter((one) => !isOpen(one))) sender.dismiss(key);
    for (const { id } of uploads.filter(({ error }) => error !== null))
      void answered(dismissUploadAction(id)).then(refetch);
  };
  const wrong = refused?.said ?? failed?.error;
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <Button
          needs="library"
          disabled={onItsWay !== undefined || made !== undefined}
          onClick={() => picker.current?.click()}
        >
          Replace with a new version…
        </Button>
        <span className="text-faint">Everything that uses it will show the new one.</span>
      </p>
      <input
        ref={picker}
        type="file"
        hidden
        data-testid="new-version"
        onChange={({ target }) => {
          const [chosen] = target.files ?? [];
          target.value = '';
          letGo();
          if (chosen) sender.add([chosen], file.id);
        }}
      />
      {onItsWay && (
        <Bar
          share={onItsWay.bytes === 0 ? 0 : onItsWay.sent / onItsWay.bytes}
          words={onItsWay.standing === 'stalled' ? 'connection lost, it will continue by itself' : 'uploading'}
        />
      )}
      {!onItsWay && made && <Bar share={made.progress / 100} words="being processed" />}
      {known && <p className="text-faint">{known.said}</p>}
      {wrong && (
        <p role="alert" className="flex items-baseline gap-3 text-brick">
          {wrong}
          <Button variant="quiet" onClick={letGo}>
            Dismiss
          </Button>
        </p>
      )}
    </>
  );
}
