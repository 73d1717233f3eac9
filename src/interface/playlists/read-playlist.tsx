'use client';

import Link from 'next/link';
import { useRef, useState } from 'react';
import { done, misread, type Result } from '@/core/refusal';
import { answered } from '@/interface/data/answered';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import type { PlaylistRead } from '@/services/plan';

const SHOWN = 20;

async function send(file: File): Promise<Result<PlaylistRead>> {
  const response = await fetch(`/api/playlists?name=${encodeURIComponent(file.name)}`, { method: 'POST', body: file });
  const told = (await response.json().catch(() => null)) as { title?: unknown } | null;
  if (response.ok && told) return done(told as unknown as PlaylistRead);
  return misread(typeof told?.title === 'string' ? told.title : 'The server isn’t answering. Try again in a moment.');
}

/** Makes a playlist of a file of another program, and says which of its files the library does not have. */
export function ReadPlaylist() {
  const picker = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [result, setResult] = useState<Result<PlaylistRead> | null>(null);
  const read = async (file: File) => {
    setBusy(true);
    setResult(await answered(send(file)));
    setBusy(false);
  };
  return (
    <>
      <Button needs="plan" disabled={busy} onClick={() => picker.current?.click()}>
        Read a playlist file…
      </Button>
      <input
        ref={picker}
        type="file"
        accept=".m3u,.m3u8,.xspf"
        hidden
        data-testid="playlist-file"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          target.value = '';
          if (file) void read(file);
        }}
      />
      {result && (
        <div className="basis-full border-l-2 border-rule pl-3 text-sm" role={result.ok ? 'status' : 'alert'}>
          {result.ok ? <Read read={result.value} /> : <span className="text-brick">{result.message}</span>}{' '}
          <Button variant="quiet" onClick={() => setResult(null)}>
            Dismiss
          </Button>
        </div>
      )}
    </>
  );
}

function Read({ read: { id, name, items, missing } }: { read: PlaylistRead }) {
  return (
    <>
      <Link href={`/playlists/${id}`} className="inline-block py-1 text-tide underline underline-offset-2">
        {name}
      </Link>{' '}
      was made, with {counted(items, 'item')}.
      {missing.length > 0 && (
        <>
          {' '}
          {counted(missing.length, 'file')} that it names {missing.length === 1 ? 'is' : 'are'} not in the library:
          <ul className="font-code text-xs">
            {missing.slice(0, SHOWN).map(({ place, location }) => (
              <li key={place} className="truncate">
                {place}: {location}
              </li>
            ))}
            {missing.length > SHOWN && <li>and {missing.length - SHOWN} more</li>}
          </ul>
        </>
      )}
    </>
  );
}
