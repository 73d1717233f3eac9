'use client';

import { useRef, useState } from 'react';
import { problemIn } from '@/interface/data/answered';
import { useRefetch } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { dateTime } from '@/interface/kit/words/format';

const MOST_BYTES = 20 * 2 ** 20;

/** A photo of where a screen hangs: shown, added, replaced and deleted. On a phone the camera makes it. */
export function PlacePhoto({
  screen,
  name,
  added,
  zone,
}: {
  screen: string;
  name: string;
  /** When it was added; null if there is none. */
  added: string | null;
  zone: string;
}) {
  const refetch = useRefetch('health');
  const picker = useRef<HTMLInputElement>(null);
  const [isBusy, setBusy] = useState(false);
  const [isAsking, setAsking] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const path = `/api/screens/${encodeURIComponent(screen)}/photo`;
  const send = async (init: RequestInit) => {
    setBusy(true);
    setWrong(await problemIn(fetch(path, init)));
    setBusy(false);
    setAsking(false);
    refetch();
  };
  const choose = (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST_BYTES) setWrong('This photo is larger than 20 MB. Take a smaller one.');
    else void send({ method: 'PUT', body: file });
  };
  return (
    <>
      {added !== null && (
        <a href={`${path}?${encodeURIComponent(added)}`} target="_blank" rel="noreferrer" title="Open it in full">
          <img
            src={`${path}?${encodeURIComponent(added)}`}
            alt={`Where ${name} hangs`}
            className="max-h-80 w-full bg-well object-contain"
          />
        </a>
      )}
      <p className="mt-1 flex flex-wrap items-baseline gap-x-4 text-sm">
        {added === null ? (
          <span className="text-faint">No photo of it yet.</span>
        ) : (
          <span className="text-faint">added {dateTime(Date.parse(added), zone)}</span>
        )}
        {isAsking ? (
          <>
            <Button needs="operate" variant="quiet" className="!px-0" onClick={() => void send({ method: 'DELETE' })}>
              Delete the photo
            </Button>
            <Button variant="quiet" className="!px-0" onClick={() => setAsking(false)}>
              Cancel
            </Button>
          </>
        ) : (
          <>
            <Button
              needs="operate"
              variant="quiet"
              className="!px-0"
              disabled={isBusy}
              onClick={() => picker.current?.click()}
            >
              {isBusy ? 'Uploading…' : added === null ? 'Add a photo' : 'Replace'}
            </Button>
            {added !== null && (
              <Button needs="operate" variant="quiet" className="!px-0" onClick={() => setAsking(true)}>
                Delete…
              </Button>
            )}
          </>
        )}
      </p>
      <input
        ref={picker}
        type="file"
        hidden
        accept="image/jpeg,image/png,image/webp"
        data-testid="place-photo"
        onChange={({ target }) => {
          choose(target.files?.[0]);
          target.value = '';
        }}
      />
      {wrong !== null && (
        <p role="alert" className="text-sm text-brick">
          {wrong}
        </p>
      )}
    </>
  );
}
