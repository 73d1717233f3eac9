'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import Link from 'next/link';
import { useMemo } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import * as z from 'zod';
import { countTags, durationWords, idSchema, nameSchema, removed, screenSchema, type Screen } from '@/core/plan';
import type { PhraseContext } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { AutoForm } from '@/interface/forms/auto-form';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Conflicts, useRecord } from '@/interface/forms/use-record';
import { TagsField } from '@/interface/forms/tags-field';
import { durationTextSchema } from '@/interface/forms/seconds';
import { Button } from '@/interface/kit/controls/button';
import { ContentPicker } from '@/interface/forms/content-picker';
import { contentOf, contentValue } from '@/interface/kit/content/content';
import { Field, Input, Select, Tick } from '@/interface/kit/controls/field';
import { tagsText, tagsTextSchema } from '@/interface/kit/screens/tags';
import { PICTURES, isOtherPictures, picturesOf, picturesValue } from './pictures-choice';
import { LightsOutField } from './lights-out/lights-out-field';
import { WALL_FIELDS, WALL_NAMES, WallFields, checkWall, wallOf, wallShape, wallValues } from './wall-fields';
import { LIGHTS_OUT_HINT, lightsOutText, lightsOutTextSchema } from './hours-text';

const NEW: readonly string[] = [];

const size = z.coerce.number('Write a number of pixels.');

const screenFormSchema = (context: PhraseContext) =>
  z
    .object({
      name: nameSchema,
      site: idSchema,
      width: size.pipe(screenSchema.shape.width),
      height: size.pipe(screenSchema.shape.height),
      tags: tagsTextSchema,
      backdrop: z.string(),
      lightsOut: lightsOutTextSchema(context),
      profile: z.string(),
      pictures: z.string(),
      keysOff: z.boolean(),
      stepRest: durationTextSchema(screenSchema.shape.stepRestMs.unwrap()),
      ...wallShape,
    })
    .superRefine(checkWall);

/** What people call the fields. */
const FIELD_NAMES = {
  name: 'Name',
  site: 'Site',
  width: 'Width',
  height: 'Height',
  tags: 'Tags',
  backdrop: 'Backdrop',
  lightsOut: 'Lights out',
  profile: 'Profile',
  pictures: 'Pictures of it',
  keysOff: 'Number keys',
  stepRest: 'Arrow keys',
  ...WALL_NAMES,
};

function screenValues(screen: Screen | null, site: string) {
  return {
    name: screen?.name ?? '',
    site: screen?.site ?? site,
    width: String(screen?.width ?? 1920),
    height: String(screen?.height ?? 1080),
    tags: tagsText(screen?.tags),
    backdrop: contentValue(screen?.backdrop),
    lightsOut: lightsOutText(screen?.lightsOut),
    profile: screen?.profile ?? '',
    pictures: picturesValue(screen),
    keysOff: screen?.keysOff ?? false,
    stepRest: screen?.stepRestMs === undefined ? '' : durationWords(screen.stepRestMs),
    ...wallValues(screen?.wall),
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
  const context = usePhraseContext();
  const schema = useMemo(() => screenFormSchema(context), [context]);
  const form = useForm({
    resolver: zodResolver(schema),
    mode: 'onTouched',
    defaultValues: screenValues(screen, site),
  });
  const record = useRecord(form, {
    kind: 'screen',
    object: screen,
    valuesOf: (object) => screenValues(object, site),
    madeOf: { private: ['pictures'], glimpseMinutes: ['pictures'], wall: WALL_FIELDS, stepRestMs: ['stepRest'] },
  });
  const known = useMemo(() => countTags([...draft.sites, ...draft.screens]), [draft]);
  const { register, formState } = form;
  const { errors } = formState;
  const values = useWatch({ control: form.control });

  const submit = async (checked: z.output<ReturnType<typeof screenFormSchema>>) => {
    const { backdrop, pictures, profile, keysOff, stepRest, rows, columns, widthMm, heightMm, betweenMm, ...others } =
      checked;
    const content = contentOf(backdrop);
    const wall = wallOf({ rows, columns, widthMm, heightMm, betweenMm });
    const result = await save(
      record.patch({
        ...others,
        wall,
        keysOff: keysOff || undefined,
        stepRestMs: stepRest,
        backdrop: content,
        profile: profile || undefined,
        ...picturesOf(pictures),
      }),
      screen ? undefined : `${others.name} was added. Now pair a player with it.`,
    );
    if (result.ok && !screen) onDone(result.value.ids[0] ?? '');
    return result;
  };

  return (
    <>
      <AutoForm
        form={form}
        about={screen ? `screen ${screen.id}` : `screen new ${site}`}
        save={submit}
        create={screen ? undefined : 'Add screen'}
        held={record.conflicts.length > 0}
        settled={record.settled}
      >
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
          <Field
            label="Width"
            hint="In pixels, the way it is mounted; of a wall the whole picture"
            error={errors.width?.message}
          >
            <Input inputMode="numeric" invalid={!!errors.width} {...register('width')} />
          </Field>
          <Field label="Height" error={errors.height?.message}>
            <Input inputMode="numeric" invalid={!!errors.height} {...register('height')} />
          </Field>
        </div>
        <WallFields
          values={values}
          register={(field) => register(field)}
          errors={errors}
          onSize={({ width, height }) => {
            form.setValue('width', String(width), { shouldDirty: true });
            form.setValue('height', String(height), { shouldDirty: true });
            // The button that was pressed goes away with what it said: the focus stays in the form, so leaving saves.
            form.setFocus('height');
          }}
        />
        <Field
          label="Profile"
          hint={
            <>
              What this kind of display can do.{' '}
              <Link href="/screens/profiles" className="text-tide underline underline-offset-2">
                All profiles
              </Link>
            </>
          }
        >
          <Select {...register('profile')}>
            <option value="">Not known</option>
            {draft.profiles.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </Field>
        <TagsField
          control={form.control}
          name="tags"
          hint="Besides its site’s tags. Separate tags with commas."
          known={known}
        />
        <Field label="Backdrop" hint="What it shows when nothing is booked">
          <Controller
            control={form.control}
            name="backdrop"
            render={({ field: { value, onChange, onBlur } }) => (
              <ContentPicker plan={draft} none="The site’s, or the network’s" {...{ value, onChange, onBlur }} />
            )}
          />
        </Field>
        <Controller
          control={form.control}
          name="lightsOut"
          render={({ field: { value, onChange, onBlur } }) => (
            <LightsOutField
              screens={screen ? [screen.id] : NEW}
              hint={LIGHTS_OUT_HINT}
              error={errors.lightsOut?.message}
              {...{ value, onChange, onBlur }}
            />
          )}
        />
        <Field
          label="Pictures of it"
          hint="What it really shows, for you and your colleagues. This takes effect at once, without publishing."
        >
          <Select {...register('pictures')}>
            {PICTURES.map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
            {isOtherPictures(picturesValue(screen)) && (
              <option value={picturesValue(screen)}>Every {picturesValue(screen)} minutes</option>
            )}
          </Select>
        </Field>
        {draft.cues.some(({ key }) => key !== undefined) && (
          <Tick label="Number keys at the screen do nothing" {...register('keysOff')} />
        )}
        <Field
          label="Arrow keys"
          hint="With these, a person at the screen turns to the next item or the one before. Write after how long the plan goes on, e.g. 30 s. Leave empty to switch them off."
          error={errors.stepRest?.message}
        >
          <Input placeholder="off" {...register('stepRest')} />
        </Field>
      </AutoForm>
      {screen && (
        <Button
          needs="plan"
          variant="grave"
          className="mt-8"
          onClick={() =>
            void edit([removed('screen', screen)], `${screen.name} was deleted, and its player unpaired.`).then(
              (result) => result.ok && onDone(''),
            )
          }
        >
          Delete this screen
        </Button>
      )}
    </>
  );
}
