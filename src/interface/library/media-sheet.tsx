'use client';

import { Conflicts, useRecord } from '@/interface/forms/use-record';
import { zodResolver } from '@hookform/resolvers/zod';
import Link from 'next/link';
import { useMemo } from 'react';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import { describeWhen, nameSchema, readWhen, refused, removed, type Media } from '@/core';
import { useLibraryTags, useMediaExtras } from '@/interface/data/queries';
import { useNetwork, useThumbnails } from '@/interface/data/provider';
import { AutoForm } from '@/interface/forms/auto-form';
import { TagsField } from '@/interface/forms/tags-field';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { duration, megabytes } from '@/interface/kit/format';
import { tagsText, tagsTextSchema } from '@/interface/kit/tags';
import { Thumb } from '@/interface/kit/thumb';
import { fitWords, fits } from './fit';
import { OnAir } from '@/interface/forecast/on-air';
import { secondsTextSchema } from '@/interface/forms/seconds';
import { usesOf } from './uses';

const mediaFormSchema = z.object({
  name: nameSchema,
  tags: tagsTextSchema,
  seconds: secondsTextSchema,
  available: z.string(),
});

/** What people call the fields. */
const FIELD_NAMES = {
  name: 'Name',
  tags: 'Tags',
  seconds: 'Seconds on screen',
  available: 'Available',
};

/** A film's length is measured: it has no seconds of its own. */
const mediaValues = ({ name, tags, kind, durationMs, when }: Media) => ({
  name,
  tags: tagsText(tags),
  seconds: kind === 'image' && durationMs !== undefined ? String(durationMs / 1000) : '',
  available: when ? describeWhen(when) : '',
});

/** One file: what it is, how it looks on our screens, where it is used, and the little that can be changed. */
export function MediaSheet({ media, onGone }: { media: Media; onGone: () => void }) {
  const { draft, edit, save } = useNetwork('draft', 'edit', 'save');
  const thumbnail = useThumbnails();
  const extras = useMediaExtras(media.id);
  const uses = useMemo(() => usesOf(draft, media.id), [draft, media.id]);
  const fit = useMemo(() => fits(media, draft.screens), [media, draft.screens]);
  const form = useForm({
    resolver: zodResolver(mediaFormSchema),
    mode: 'onTouched',
    defaultValues: mediaValues(media),
  });
  const record = useRecord(form, {
    kind: 'media',
    object: media,
    valuesOf: mediaValues,
    madeOf: { durationMs: ['seconds'], when: ['available'] },
  });
  const known = useLibraryTags();
  const { register, formState } = form;
  const { errors } = formState;

  const context = usePhraseContext();
  const submit = ({ name, tags, seconds, available }: z.output<typeof mediaFormSchema>) => {
    const said = available.trim();
    // What was said before is what it was, whatever today makes of its words.
    const old = media.when ? describeWhen(media.when) : '';
    const read = said === '' || said === old ? null : readWhen(said, context);
    if (read && !read.ok) return Promise.resolve(refused([{ path: '/available', message: read.message }]));
    const when = said === '' ? undefined : read ? read.value : media.when;
    return save(record.patch({ ...media, name, tags, durationMs: seconds, when }));
  };

  return (
    <div className="space-y-6">
      {media.kind === 'video' ? (
        <video
          src={`/api/files/${media.sha256}`}
          poster={thumbnail(media.id)}
          controls
          muted
          className="max-h-64 w-full bg-black"
        />
      ) : (
        <Thumb src={thumbnail(media.id)} alt={media.name} className="max-h-64 w-full" />
      )}
      <p className="font-code text-xs text-faint">
        {media.width} × {media.height} · {extras?.codec ?? media.type} · {megabytes(media.bytes)}
        {media.kind === 'video' && media.durationMs !== undefined && ` · ${duration(media.durationMs)}`}
      </p>
      <AutoForm
        form={form}
        about={`media ${media.id}`}
        save={submit}
        held={record.conflicts.length > 0}
        settled={record.settled}
        fieldOf={({ path }) => (path.startsWith('/when') ? 'available' : (path.split('/')[1] ?? ''))}
      >
        <Conflicts record={record} names={FIELD_NAMES} />
        <Field label="Name" error={errors.name?.message}>
          <Input invalid={!!errors.name} {...register('name')} />
        </Field>
        <TagsField
          control={form.control}
          name="tags"
          hint="Collecting rules find files by them; a comma parts them"
          known={known}
        />
        {media.kind === 'image' && (
          <Field
            label="Seconds on screen"
            hint={`Where an item says nothing else; empty: ${(draft.network.defaultDurationMs ?? 10_000) / 1000} s`}
            error={errors.seconds?.message}
          >
            <Input inputMode="decimal" invalid={!!errors.seconds} {...register('seconds')} className="max-w-32" />
          </Field>
        )}
        <Field
          label="Available"
          hint="Empty: always. As one says it: until 28 Feb, weekends in December. Beyond it no screen shows the file"
          error={errors.available?.message}
        >
          <Input autoComplete="off" spellCheck={false} invalid={!!errors.available} {...register('available')} />
        </Field>
      </AutoForm>
      <section>
        <h3 className="text-base">On our screens</h3>
        <ul className="mt-1 text-sm">
          {fit.map((one) => (
            <li key={`${one.width}x${one.height}`} className="flex justify-between border-b border-rule py-1">
              <span className="font-code text-xs">
                {one.width} × {one.height} <span className="text-faint">({one.screens})</span>
              </span>
              <span>{fitWords(one)}</span>
            </li>
          ))}
        </ul>
      </section>
      {extras && extras.renditions.length > 0 && (
        <section>
          <h3 className="text-base">Made for our screens</h3>
          <ul className="mt-1 text-sm">
            <Rendition size={`${media.width} × ${media.height}`} words={`${megabytes(media.bytes)}, the file`} />
            {extras.renditions.map(({ width, height, bytes, error }) => (
              <Rendition
                key={`${width}x${height}`}
                size={`${width} × ${height}`}
                words={error ?? (bytes === null ? 'being made' : megabytes(bytes))}
              />
            ))}
          </ul>
        </section>
      )}
      <section>
        <h3 className="text-base">On air</h3>
        <OnAir kind="media" id={media.id} />
      </section>
      <section>
        <h3 className="text-base">Used in</h3>
        {uses.length === 0 ? (
          <p className="text-sm text-faint">Nothing names it.</p>
        ) : (
          <ul className="text-sm">
            {uses.map(({ what, path }) => (
              <li key={what}>
                <Link href={path} className="text-tide underline underline-offset-2">
                  {what}
                </Link>
              </li>
            ))}
          </ul>
        )}
      </section>
      <Button
        variant="grave"
        onClick={() =>
          void edit([removed('media', media)], `"${media.name}" was removed. Ctrl Z brings it back.`).then(
            (result) => result.ok && onGone(),
          )
        }
      >
        Remove from the library
      </Button>
    </div>
  );
}

function Rendition({ size, words }: { size: string; words: string }) {
  return (
    <li className="flex justify-between border-b border-rule py-1">
      <span className="font-code text-xs">{size}</span>
      <span>{words}</span>
    </li>
  );
}
