'use client';

import { changed, type Media, type Playlist } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import { usesOf } from './uses';

/** Puts a file or playlist away without taking it out of what uses it, and takes it back. */
export function Archive(props: { kind: 'media'; object: Media } | { kind: 'playlist'; object: Playlist }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const { object } = props;
  const { archived, name } = object;
  const set = (next: true | undefined) =>
    props.kind === 'media'
      ? changed('media', props.object, { archived: next })
      : changed('playlist', props.object, { archived: next });
  const uses = usesOf(draft, props).length;
  return archived ? (
    <Button needs="plan" onClick={() => void edit(set(undefined), `“${name}” is back.`)}>
      Restore from the archive
    </Button>
  ) : (
    <Button
      needs="plan"
      title={uses > 0 ? `It stays in ${counted(uses, 'place')} that use it, but no longer shows there` : undefined}
      onClick={() =>
        void edit(
          set(true),
          uses > 0
            ? `“${name}” is archived, and no longer shows in ${counted(uses, 'place')}. Ctrl Z brings it back.`
            : `“${name}” is archived. Ctrl Z brings it back.`,
        )
      }
    >
      Archive
    </Button>
  );
}

/** Says of a page's subject that it is archived. */
export function Archived({ noun }: { noun: string }) {
  return (
    <p role="status" className="mt-3 border-l-2 border-brick bg-well px-3 py-1.5 text-sm">
      This {noun} is archived. It no longer shows, isn’t collected by rules, and isn’t offered in lists.
    </p>
  );
}
