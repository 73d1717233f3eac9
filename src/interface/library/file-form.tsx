'use client';

import { Conflicts, useRecord } from '@/interface/forms/use-record';
import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import * as z from 'zod';
import { nameSchema, type Media } from '@/core/plan';
import { refused } from '@/core/refusal';
import { describeWhen } from '@/core/when';
import { useLibraryTags } from '@/interface/data/queries';
import { useNetwork } from '@/interface/data/provider';
import { AutoForm } from '@/interface/forms/auto-form';
import { TagsField } from '@/interface/forms/tags-field';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Field, Input } from '@/interface/kit/controls/field';
import { tagsText, tagsTextSchema } from '@/interface/kit/screens/tags';
import { readingsNote } from '@/interface/forms/other-readings';
import { readSaid } from '@/interface/forms/read-said';
import { secondsTextSchema } from '@/interface/forms/seconds';

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

/** The little of a file that can be changed. */
export function FileForm({ media }: { media: Media }) {
  const { draft, save } = useNetwork('draft', 'save');
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
    const read = readSaid(available, context, media.when);
    if (!read.ok) return Promise.resolve(refused([{ path: '/available', message: read.message }]));
    const when = read.value;
    // What is heard, and what moves, lasts as long as it is.
    const durationMs = media.kind === 'image' ? seconds : media.durationMs;
    return save(record.patch({ ...media, name, tags, durationMs, when }));
  };

  return (
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
        hint="Playlists can collect files by tag. Separate tags with commas."
        known={known}
      />
      {media.kind === 'image' && (
        <Field
          label="Seconds on screen"
          hint={`Where an item has no time of its own. Leave empty for ${(draft.network.defaultDurationMs ?? 10_000) / 1000} s.`}
          error={errors.seconds?.message}
        >
          <Input inputMode="decimal" invalid={!!errors.seconds} {...register('seconds')} className="max-w-32" />
        </Field>
      )}
      <Field
        label="Available"
        hint={
          readingsNote(form.watch('available'), context) ??
          'Leave empty to keep it available. Outside these times no screen shows it. Type it in words, e.g. “until 28 Feb”.'
        }
        error={errors.available?.message}
      >
        <Input autoComplete="off" spellCheck={false} invalid={!!errors.available} {...register('available')} />
      </Field>
    </AutoForm>
  );
}
