'use client';

import { changed, readVolume, volumeText, type Playlist } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { ContentPicker } from '@/interface/forms/content-picker';
import { SavedInput } from '@/interface/forms/saved-input';
import { contentOf } from '@/interface/kit/content/content';

/** As loud as music is at first: under what is said beside it. */
const USUAL_VOLUME = 0.5;

/** The playlist whose sounds loop beside this one, and how loud. */
export function MusicChoice({ playlist }: { playlist: Playlist }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const { music } = playlist;
  return (
    <div className="flex items-start gap-2 text-sm">
      <span aria-hidden className="pt-1.5 text-faint">
        Music
      </span>
      <div className="w-52">
        <ContentPicker
          plan={draft}
          only="playlist"
          none="none"
          aria-label="Music"
          value={music ? `playlist:${music.playlist}` : ''}
          onChange={(value) => {
            const chosen = contentOf(value)?.playlist;
            const next = chosen === undefined ? undefined : { playlist: chosen, volume: music?.volume ?? USUAL_VOLUME };
            void edit(changed('playlist', playlist, { music: next }));
          }}
        />
      </div>
      {music && (
        <SavedInput
          label="Volume of the music"
          of={{ kind: 'playlist', id: playlist.id, field: 'music volume' }}
          value={volumeText(music.volume)}
          placeholder="silent"
          inputMode="decimal"
          read={readVolume}
          save={(volume) => edit(changed('playlist', playlist, { music: { ...music, volume } }))}
          width="w-24"
          className="!w-16 text-right font-code"
        >
          %
        </SavedInput>
      )}
    </div>
  );
}
