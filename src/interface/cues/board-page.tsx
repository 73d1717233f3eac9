'use client';

import { useEffect, useRef, useState } from 'react';
import { done, misread, type Result } from '@/core/refusal';
import type { Fired, ShownBoard } from '@/services/cues';
import { BoardPad } from './board-pad';
import { usePress } from './use-press';

const AGAIN_MS = 2000;
const NO_LINE = 'Lanternpost can’t be reached. Check the network; this page tries again by itself.';

/** What the route of the link's board answers, or why not. */
async function ask<T>(token: string, init: RequestInit = {}): Promise<Result<T>> {
  try {
    const headers = { ...init.headers, authorization: `Bearer ${token}` };
    const response = await fetch('/api/board', { cache: 'no-store', ...init, headers });
    const body = (await response.json()) as T & { readonly title?: string };
    return response.ok ? done(body) : misread(body.title ?? 'Lanternpost doesn’t answer.');
  } catch {
    // Also where something in between answers what is not ours.
    return misread(NO_LINE);
  }
}

/** The pictures that a board's buttons have, as they come. */
function usePictures(token: string | null, board: ShownBoard | null): (media: string) => string | undefined {
  const [pictures, setPictures] = useState<Readonly<Record<string, string>>>({});
  const wanted = [...new Set(board?.buttons.flatMap(({ picture }) => picture ?? []))].sort().join(' ');
  useEffect(() => {
    if (token === null || wanted === '') return;
    let ended = false;
    const made: string[] = [];
    for (const media of wanted.split(' '))
      void fetch(`/api/board/picture?media=${media}`, { headers: { authorization: `Bearer ${token}` } })
        .then((response) => (response.ok ? response.blob() : null))
        .then((blob) => {
          if (!blob || ended) return;
          const src = URL.createObjectURL(blob);
          made.push(src);
          setPictures((known) => ({ ...known, [media]: src }));
        })
        // Without its picture a button still has its words.
        .catch(() => undefined);
    return () => {
      ended = true;
      for (const src of made) URL.revokeObjectURL(src);
    };
  }, [token, wanted]);
  return (media) => pictures[media];
}

/** One board, opened by its link on a phone: large buttons, and nothing else. The link's secret stays behind the # of the address. */
export function BoardPage() {
  const [token, setToken] = useState<string | null>(null);
  const [board, setBoard] = useState<ShownBoard | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<{ readonly text: string; readonly bad: boolean } | null>(null);
  /** The server's clock less this one's. */
  const [ahead, setAhead] = useState(0);
  const [now, setNow] = useState(0);
  const look = useRef(() => {});
  useEffect(() => {
    const secret = decodeURIComponent(location.hash.slice(1));
    setToken(secret);
    let ended = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ring = async () => {
      clearTimeout(timer);
      const result = await ask<ShownBoard>(secret);
      if (ended) return;
      if (result.ok) {
        setBoard(result.value);
        setAhead(result.value.now - Date.now());
      }
      setProblem(result.ok ? null : result.message);
      timer = setTimeout(() => void ring(), document.hidden ? 10 * AGAIN_MS : AGAIN_MS);
    };
    look.current = () => void ring();
    void ring();
    const tick = setInterval(() => setNow(Date.now()), 250);
    const seen = () => !document.hidden && void ring();
    document.addEventListener('visibilitychange', seen);
    return () => {
      ended = true;
      clearTimeout(timer);
      clearInterval(tick);
      document.removeEventListener('visibilitychange', seen);
    };
  }, []);
  const pictureOf = usePictures(token, board);
  const { busy, press } = usePress(
    async (button, end, key) => {
      const result = await ask<Fired>(token ?? '', {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'idempotency-key': key },
        body: JSON.stringify({ button, end }),
      });
      look.current();
      return result;
    },
    (text, bad) => setSaid({ text, bad }),
  );
  return (
    <main className="mx-auto min-h-dvh max-w-3xl p-4">
      {board && (
        <header className="mb-4">
          <h1 className="text-2xl">{board.name}</h1>
          <p className="text-faint">{board.network}</p>
        </header>
      )}
      {problem !== null && (
        <p role="alert" className="mb-4 border border-brick p-3 text-brick">
          {problem}
        </p>
      )}
      <p role="status" className={`mb-3 min-h-6 ${said?.bad ? 'text-brick' : ''}`}>
        {said?.text}
      </p>
      {board && board.buttons.length === 0 && (
        <p className="text-faint">This board has no buttons yet. The person who made it can add some.</p>
      )}
      {board && (
        <BoardPad
          board={board}
          now={now + ahead}
          busy={busy}
          pictureOf={pictureOf}
          onPress={(button, end) => void press(button, end)}
        />
      )}
      {!board && problem === null && <p className="text-faint">Loading…</p>}
    </main>
  );
}
