'use client';

import type { Ref, SelectHTMLAttributes } from 'react';
import type { Content, Plan } from '@/core';
import { Select } from './field';

/** A content as a select's value: `playlist:house`, `media:line-flag`, or empty for none. */
export function contentValue(content: Content | undefined): string {
  if (!content) return '';
  return content.playlist === undefined ? `media:${content.media}` : `playlist:${content.playlist}`;
}

/** The content of a select's value; `durationMs` is for a file alone. */
export function contentOf(value: string, durationMs?: number): Content | undefined {
  const [kind, id] = value.split(':');
  if (!id) return undefined;
  return kind === 'media' ? { media: id, ...(durationMs === undefined ? {} : { durationMs }) } : { playlist: id };
}

/** The file that stands for a content: itself, or the first of a playlist, nested ones too; undefined where there is none. */
export function firstMedia(plan: Plan, content: Content): string | undefined {
  if (content.media !== undefined) return content.media;
  const list = plan.playlists.find((one) => one.id === content.playlist);
  for (const item of list?.items ?? []) {
    const found =
      item.media ?? (item.playlist === undefined ? undefined : firstMedia(plan, { playlist: item.playlist }));
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Chooses one playlist or one file; a plain file needs no playlist around it. */
export function ContentSelect({
  plan,
  none,
  ref,
  ...rest
}: SelectHTMLAttributes<HTMLSelectElement> & { plan: Plan; none: string; ref?: Ref<HTMLSelectElement> }) {
  const byName = <T extends { name: string }>(list: readonly T[]) =>
    [...list].sort((a, b) => a.name.localeCompare(b.name));
  return (
    <Select ref={ref} {...rest}>
      <option value="">{none}</option>
      <optgroup label="Playlists">
        {byName(plan.playlists).map(({ id, name }) => (
          <option key={id} value={`playlist:${id}`}>
            {name}
          </option>
        ))}
      </optgroup>
      <optgroup label="Media">
        {byName(plan.media).map(({ id, name }) => (
          <option key={id} value={`media:${id}`}>
            {name}
          </option>
        ))}
      </optgroup>
    </Select>
  );
}
