'use client';

import type { Item, Playlist } from '@/core/plan';
import type { Result } from '@/core/refusal';
import { useNetwork } from '@/interface/data/provider';
import { ContentPicker } from '@/interface/forms/content-picker';
import { DraftOffer, useKept } from '@/interface/forms/use-draft';
import { Button } from '@/interface/kit/controls/button';
import { contentOf } from '@/interface/kit/content/content';
import { Input } from '@/interface/kit/controls/field';

/** Items other than a single file: another playlist, or all media that match. */
export function MoreItems({
  playlist,
  onAdd,
}: {
  playlist: Playlist;
  onAdd: (item: Item) => Promise<Result<unknown>>;
}) {
  const { draft } = useNetwork('draft');
  const { values, set, clear, draft: kept } = useKept(`playlist ${playlist.id} collect`, { rule: '' });
  const { rule } = values;
  return (
    <div className="mt-4 flex flex-wrap items-center gap-3 text-sm">
      <div className="w-full sm:w-56">
        <ContentPicker
          plan={draft}
          only="playlist"
          without={playlist.id}
          none="Add a playlist…"
          aria-label="Add a playlist"
          value=""
          onChange={(value) => {
            const content = contentOf(value);
            if (content?.playlist !== undefined) void onAdd({ playlist: content.playlist });
          }}
        />
      </div>
      <form
        className="flex flex-wrap items-center gap-2 max-sm:w-full"
        onSubmit={(event) => {
          event.preventDefault();
          if (rule.trim() === '') return;
          void onAdd({ collect: rule.trim(), order: 'newest' }).then((result) => result.ok && clear());
        }}
      >
        <Input
          aria-label="Collect all files that match"
          placeholder="all files tagged, e.g. offer and not winter"
          value={rule}
          onChange={(event) => set({ rule: event.target.value })}
          className="sm:!w-72"
        />
        <Button needs="plan" type="submit">
          Collect
        </Button>
        <DraftOffer draft={kept} />
      </form>
    </div>
  );
}
