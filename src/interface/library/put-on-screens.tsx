'use client';

import { useState } from 'react';
import type { PlaylistOn } from '@/core/forecast';
import { changed, type Media, type Patch, tagsOf } from '@/core/plan';
import { refused, type Result } from '@/core/refusal';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { ask, useAnswer } from '@/interface/forecast/client';
import { WhereBox, namesProblem } from '@/interface/forms/where-box';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import { withFiles } from './put-in';

/**
 * Straight to the wall's loop: files go into the playlists that play on some screens now, at their end or replacing what is in them, and are
 * tagged in the same step.
 */
export function PutOnScreens({ files, onDone }: { files: readonly Media[]; onDone: () => void }) {
  const { drafted, draft, edit, hold } = useNetwork('drafted', 'draft', 'edit', 'hold');
  const { now } = useMoment();
  const [where, setWhere] = useState('');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [instead, setInstead] = useState(false);
  const [tags, setTags] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const found = where.trim() === '' ? null : selectScreens(draft, where);
  const screens = found?.ok ? found.value.map(({ id }) => id) : [];
  const minute = Math.floor(now / 60_000) * 60_000;
  const playing = useAnswer<readonly PlaylistOn[] | null>(
    () => ask(drafted, { kind: 'playlists', screens, at: minute }),
    [drafted, screens.join(), minute],
    null,
  );
  const problem =
    where.trim() === '' ? undefined : (namesProblem(where, draft) ?? (found?.ok === false ? found.message : undefined));
  const chosen = (playing ?? []).filter(({ playlist }) => !left.has(playlist));
  const reached = chosen.reduce((sum, one) => sum + one.screens.length, 0);
  const nowhere = screens.length - (playing ?? []).reduce((sum, one) => sum + one.screens.length, 0);

  const put = async (): Promise<Result<unknown>> => {
    if (problem !== undefined) return refused([{ path: '', message: problem }]);
    if (chosen.length === 0)
      return refused([
        { path: '', message: 'Choose screens where a playlist is playing now, and at least one playlist.' },
      ]);
    hold(files);
    const lists = chosen.flatMap(({ playlist }) => draft.playlists.find(({ id }) => id === playlist) ?? []);
    const more = tagsOf(tags);
    const patches: Patch[] = [
      ...lists.flatMap((playlist) => withFiles(playlist, files, instead)),
      ...(more.length === 0
        ? []
        : files.flatMap((file) => changed('media', file, { tags: [...new Set([...(file.tags ?? []), ...more])] }))),
    ];
    return edit(
      patches,
      `${counted(files.length, 'file')} went into ${lists.map(({ name }) => `“${name}”`).join(', ')}. Publish it to the screens.`,
    );
  };
  return (
    <form
      noValidate
      aria-label="Put on screens"
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        void put().then((result) => {
          setWrong(result.ok ? null : result.message);
          if (result.ok) onDone();
        });
      }}
    >
      <Field label="Screens" hint="By tag, site or name, as in a booking" error={problem}>
        <WhereBox
          plan={draft}
          value={where}
          invalid={problem !== undefined}
          placeholder="hall, or a site or screen by its name"
          onChange={(text) => {
            setWhere(text);
            setWrong(null);
          }}
        />
      </Field>
      {screens.length > 0 && playing && (
        <fieldset>
          <legend className="text-sm font-semibold">Into what plays there now</legend>
          {playing.map(({ playlist, screens: on }) => (
            <label key={playlist} className="flex items-center gap-2 py-1">
              <input
                type="checkbox"
                className="accent-dusk"
                checked={!left.has(playlist)}
                onChange={() => {
                  const next = new Set(left);
                  if (!next.delete(playlist)) next.add(playlist);
                  setLeft(next);
                }}
              />
              {draft.playlists.find(({ id }) => id === playlist)?.name ?? playlist}
              <span className="text-sm text-faint">on {counted(on.length, 'screen')}</span>
            </label>
          ))}
          {nowhere > 0 && (
            <p className="text-sm text-faint">
              On {counted(nowhere, 'screen')} no playlist is playing now. Make a booking there instead.
            </p>
          )}
        </fieldset>
      )}
      <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
        <legend className="sr-only">How</legend>
        {[false, true].map((one) => (
          <label key={String(one)} className="flex items-center gap-2">
            <input
              type="radio"
              name="how"
              className="accent-dusk"
              checked={instead === one}
              onChange={() => setInstead(one)}
            />
            {one ? 'replacing what is in them' : 'at their end'}
          </label>
        ))}
      </fieldset>
      <Field label="Also add a tag" hint="Leave empty for none">
        <Input value={tags} autoComplete="off" onChange={({ target }) => setTags(target.value)} />
      </Field>
      {wrong && (
        <p role="alert" className="text-sm text-brick">
          {wrong}
        </p>
      )}
      <Button needs="plan" type="submit" variant="main">
        {chosen.length === 0
          ? 'Put in'
          : `Put into ${counted(chosen.length, 'playlist')}, on ${counted(reached, 'screen')}`}
      </Button>
    </form>
  );
}
