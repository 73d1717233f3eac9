'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm } from 'react-hook-form';
import { z } from 'zod';
import { idSchema, nameSchema, removed, screenSchema, windowSchema, type Screen } from '@/core';
import { useNetwork } from '@/interface/data/provider';
import { AutoForm } from '@/interface/forms/auto-form';
import { Conflicts, useRecord } from '@/interface/forms/use-record';
import { Button } from '@/interface/kit/button';
import { ContentPicker } from '@/interface/forms/content-picker';
import { contentOf, contentValue } from '@/interface/kit/content';
import { Field, Input, Select } from '@/interface/kit/field';
import { tagsText, tagsTextSchema } from '@/interface/kit/tags';

const size = z.coerce.number('Write a number of pixels.');

const screenFormSchema = z
  .object({
    name: nameSchema,
    site: idSchema,
    width: size.pipe(screenSchema.shape.width),
    height: size.pipe(screenSchema.shape.height),
    tags: tagsTextSchema,
    backdrop: z.string(),
    off: z.string().trim(),
    on: z.string().trim(),
  })
  .superRefine(({ off, on }, context) => {
    if ((off === '') !== (on === ''))
      context.addIssue({
        code: 'custom',
        path: [off === '' ? 'off' : 'on'],
        message: 'Lights-out has a beginning and an end: fill both, or neither.',
      });
    if (off === '' || on === '') return;
    const window = windowSchema.safeParse([off, on]);
    for (const issue of window.error?.issues ?? [])
      context.addIssue({ code: 'custom', path: [issue.path[0] === 0 ? 'off' : 'on'], message: issue.message });
  });

/** What people call the fields. */
const FIELD_NAMES = {
  name: 'Name',
  site: 'Site',
  width: 'Width',
  height: 'Height',
  tags: 'Tags',
  backdrop: 'Backdrop',
  off: 'Lights out from',
  on: 'Lights out until',
};

/** The one window of each night in which the display is off, empty for none; null where its hours are more than that. */
function nightlyOf(screen: Screen | null): readonly [string, string] | null {
  const [first, ...more] = screen?.lightsOut ?? [];
  if (!first) return ['', ''];
  const [window, ...others] = first.windows ?? [];
  return window && more.length + others.length === 0 && Object.keys(first).join() === 'windows' ? window : null;
}

function screenValues(screen: Screen | null, site: string) {
  const [off, on] = nightlyOf(screen) ?? ['', ''];
  return {
    name: screen?.name ?? '',
    site: screen?.site ?? site,
    width: String(screen?.width ?? 1920),
    height: String(screen?.height ?? 1080),
    tags: tagsText(screen?.tags),
    backdrop: contentValue(screen?.backdrop),
    off,
    on,
  };
}

/** A screen: where it stands, its size, its tags, its backdrop, and when its display is off. */
export function ScreenForm({
  screen,
  site,
  onDone,
}: {
  screen: Screen | null;
  site: string;
  onDone: (id: string) => void;
}) {
  const { draft, edit, save } = useNetwork('draft', 'edit', 'save');
  const simple = nightlyOf(screen) !== null;
  const form = useForm({
    resolver: zodResolver(screenFormSchema),
    mode: 'onTouched',
    defaultValues: screenValues(screen, site),
  });
  const record = useRecord(form, {
    kind: 'screen',
    object: screen,
    valuesOf: (object) => screenValues(object, site),
    madeOf: { lightsOut: ['off', 'on'] },
  });
  const { register, formState } = form;
  const { errors } = formState;

  const submit = async ({ off: begins, on: ends, backdrop, ...values }: z.output<typeof screenFormSchema>) => {
    const content = contentOf(backdrop);
    const nights = begins === '' ? undefined : [{ windows: [[begins, ends] as [string, string]] }];
    const result = await save(
      record.patch({ ...values, backdrop: content, lightsOut: nights }),
      screen ? undefined : `${values.name} was added: pair a player with it.`,
    );
    if (result.ok && !screen) onDone(result.value.ids[0] ?? '');
    return result;
  };

  return (
    <>
      <AutoForm form={form} save={submit} create={screen ? undefined : 'Add screen'} held={record.conflicts.length > 0}>
        <Conflicts record={record} names={FIELD_NAMES} />
        <Field label="Name" error={errors.name?.message}>
          <Input invalid={!!errors.name} {...register('name')} />
        </Field>
        <Field label="Site" error={errors.site?.message}>
          <Select {...register('site')}>
            {draft.sites.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </Field>
        <div className="flex gap-4">
          <Field label="Width" hint="Pixels, as it hangs" error={errors.width?.message}>
            <Input inputMode="numeric" invalid={!!errors.width} {...register('width')} />
          </Field>
          <Field label="Height" error={errors.height?.message}>
            <Input inputMode="numeric" invalid={!!errors.height} {...register('height')} />
          </Field>
        </div>
        <Field label="Tags" hint="Besides those of its site; separated by commas" error={errors.tags?.message}>
          <Input invalid={!!errors.tags} {...register('tags')} />
        </Field>
        <Field label="Backdrop" hint="What it shows when nothing is booked">
          <Controller
            control={form.control}
            name="backdrop"
            render={({ field: { value, onChange, onBlur } }) => (
              <ContentPicker plan={draft} none="The site's, or the network's" {...{ value, onChange, onBlur }} />
            )}
          />
        </Field>
        {simple ? (
          <div className="flex gap-4">
            <Field label="Lights out from" hint="As 23:30, or closes+01:00" error={errors.off?.message}>
              <Input invalid={!!errors.off} {...register('off')} />
            </Field>
            <Field label="until" hint="As 04:45, or opens-00:30" error={errors.on?.message}>
              <Input invalid={!!errors.on} {...register('on')} />
            </Field>
          </div>
        ) : (
          <p className="text-sm text-faint">
            Its lights-out hours are more than one window a night: they came with a plan file and stay as they are.
          </p>
        )}
      </AutoForm>
      {screen && (
        <Button
          variant="grave"
          className="mt-8"
          onClick={() =>
            void edit([removed('screen', screen)], `${screen.name} was removed, and its player unpaired.`).then(
              (result) => result.ok && onDone(''),
            )
          }
        >
          Remove this screen
        </Button>
      )}
    </>
  );
}
