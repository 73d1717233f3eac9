'use client';

import type { Board } from '@/core/plan';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch } from '@/interface/data/queries';
import { ChoosePeople } from '@/interface/people/choose-people';
import { setBoardPeopleAction } from '@/web/actions';

/** Who alone may press a board here; links are for the people who have them. */
export function BoardPeople({
  board,
  people,
  onDone,
}: {
  board: Board;
  people: readonly string[];
  onDone: () => void;
}) {
  const { notify } = useNetwork('notify');
  const refetch = useRefetch('cues');
  return (
    <ChoosePeople
      before={people}
      save={async (chosen) => {
        const result = await answered(setBoardPeopleAction(board.id, chosen));
        if (!result.ok) return result;
        refetch();
        notify(chosen.length === 0 ? 'Everyone whose role allows it may press it.' : 'Only these people may press it.');
        onDone();
        return result;
      }}
    >
      If you choose no one, everyone who may put things on screens may press it. Owners always may. A link to the board
      works for everyone who has it.
    </ChoosePeople>
  );
}
