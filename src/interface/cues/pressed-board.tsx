'use client';

import { useEffect, useState } from 'react';
import { answered } from '@/interface/data/answered';
import { thumbnailOf, useIndex, useNetwork } from '@/interface/data/provider';
import { useBoard, useRefetch } from '@/interface/data/queries';
import { pressButtonAction } from '@/web/actions';
import { BoardPad } from './board-pad';
import { usePress } from './use-press';

/** A board as people who are logged in press it. */
export function PressedBoard({ id, off, why }: { id: string; off: boolean; why: string | undefined }) {
  const { notify, draft } = useNetwork('notify', 'draft');
  const index = useIndex(draft);
  const { data: board, dataUpdatedAt } = useBoard(id);
  const refetch = useRefetch('cues');
  const [clock, setClock] = useState(() => Date.now());
  useEffect(() => {
    const tick = setInterval(() => setClock(Date.now()), 500);
    return () => clearInterval(tick);
  }, []);
  const { busy, press } = usePress(
    async (button, end, key) => {
      const result = await answered(pressButtonAction(id, { button, end }, key));
      refetch();
      return result;
    },
    (text, bad) => notify(text, bad),
  );
  if (!board) return <p className="text-faint">Loading…</p>;
  if (board.buttons.length === 0) return <p className="text-faint">No buttons yet. Add one.</p>;
  return (
    <div title={why}>
      <BoardPad
        board={board}
        now={board.now + Math.max(0, clock - dataUpdatedAt)}
        busy={busy}
        off={off}
        pictureOf={(media) => {
          const file = index.media.get(media);
          return file && (thumbnailOf(file) ?? undefined);
        }}
        onPress={(button, end) => void press(button, end)}
      />
    </div>
  );
}
