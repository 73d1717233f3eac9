'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo } from 'react';
import { Controller, useForm } from 'react-hook-form';
import * as z from 'zod';
import { changed, countTags } from '@/core/plan';
import type { PhraseContext } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { ContentPicker } from '@/interface/forms/content-picker';
import { TagsField } from '@/interface/forms/tags-field';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { contentOf } from '@/interface/kit/content/content';
import { Button } from '@/interface/kit/controls/button';
import { Field, Select } from '@/interface/kit/controls/field';
import { tagsTextSchema } from '@/interface/kit/screens/tags';
import { counted } from '@/interface/kit/words/format';
import { LIGHTS_OUT_HINT, lightsOutTextSchema } from './hours-text';
import { LightsOutField } from './lights-out/lights-out-field';
import { PICTURES, picturesOf } from './pictures-choice';

/** What a field says that leaves each screen as it is. */
const AS_IT_IS = 'as it is';
/** What is typed so that displays are never off. */
const NEVER = /^\s*never\s*$/i;

const HINT = LIGHTS_OUT_HINT.replace('Leave empty for never.', 'Type never to have them always on.');

const changeSchema = (context: PhraseContext) =>
  z.object({
    addTags: tagsTextSchema,
    removeTags: tagsTextSchema,
    lightsOut: z.preprocess((text) => (NEVER.test(String(text)) ? '' : text), lightsOutTextSchema(context)),
    backdrop: z.string(),
    pictures: z.string(),
    site: z.string(),
    profile: z.string(),
  });

/** Changes many screens at once. An empty field leaves the value of each screen as it is; one undo takes all of it back. */
export function ChangeMany({ ids, onDone }: { ids: readonly string[]; onDone: () => void }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  // As they are in the draft: the page may be looking at the published plan, or at another moment.
  const screens = draft.screens.filter(({ id }) => ids.includes(id));
  const context = usePhraseContext();
  const schema = useMemo(() => changeSchema(context), [context]);
  const known = useMemo(() => countTags([...draft.sites, ...draft.screens]), [draft]);
  const { control, register, handleSubmit, watch, formState, setError } = useForm({
    resolver: zodResolver(schema),
    mode: 'onTouched',
    defaultValues: {
      ...{
        addTags: '',
        removeTags: '',
        lightsOut: '',
        backdrop: AS_IT_IS,
        pictures: AS_IT_IS,
        site: AS_IT_IS,
        profile: AS_IT_IS,
      },
    },
  });
  const { errors, isSubmitting } = formState;
  const lightsOutTyped = watch('lightsOut') as string;
  const save = async (values: z.output<ReturnType<typeof changeSchema>>) => {
    const { addTags = [], removeTags = [], lightsOut, backdrop, pictures, site, profile } = values;
    const patches = screens.flatMap((screen) => {
      const tags = [...new Set([...(screen.tags ?? []), ...addTags])].filter((tag) => !removeTags.includes(tag));
      return changed('screen', screen, {
        ...(addTags.length + removeTags.length > 0 ? { tags } : {}),
        ...(lightsOutTyped.trim() === '' ? {} : { lightsOut }),
        ...(backdrop === AS_IT_IS ? {} : { backdrop: contentOf(backdrop) }),
        ...(pictures === AS_IT_IS ? {} : picturesOf(pictures)),
        ...(site === AS_IT_IS ? {} : { site }),
        ...(profile === AS_IT_IS ? {} : { profile: profile || undefined }),
      });
    });
    if (patches.length === 0) return setError('root', { message: 'Nothing is different. Fill in a field first.' });
    const result = await edit(patches, `${counted(patches.length, 'screen')} changed. Ctrl Z undoes it.`);
    if (result.ok) onDone();
    else setError('root', { message: result.message });
  };
  return (
    <form noValidate onSubmit={(event) => void handleSubmit(save)(event)} className="flex flex-col gap-4">
      <p className="text-faint">What you leave empty stays as it is on each screen.</p>
      <Controller
        control={control}
        name="lightsOut"
        render={({ field: { value, onChange, onBlur } }) => (
          <LightsOutField
            screens={ids}
            hint={HINT}
            error={errors.lightsOut?.message}
            value={value as string}
            {...{ onChange, onBlur }}
          />
        )}
      />
      <TagsField control={control} name="addTags" label="Add tags" hint="Separate tags with commas." known={known} />
      <TagsField
        control={control}
        name="removeTags"
        label="Remove tags"
        hint="A screen without one of them stays as it is."
        known={known}
      />
      <Field label="Backdrop" hint="What they show when nothing is booked">
        <Controller
          control={control}
          name="backdrop"
          render={({ field: { value, onChange, onBlur } }) => (
            <>
              <Select
                value={value === AS_IT_IS ? AS_IT_IS : 'another'}
                onChange={({ target }) => onChange(target.value === AS_IT_IS ? AS_IT_IS : '')}
              >
                <option value={AS_IT_IS}>As it is</option>
                <option value="another">Another for all of them</option>
              </Select>
              {value !== AS_IT_IS && (
                <ContentPicker plan={draft} none="The site’s, or the network’s" {...{ value, onChange, onBlur }} />
              )}
            </>
          )}
        />
      </Field>
      <Field label="Site">
        <Select {...register('site')}>
          <option value={AS_IT_IS}>As it is</option>
          {draft.sites.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
      </Field>
      <Field label="Profile">
        <Select {...register('profile')}>
          <option value={AS_IT_IS}>As it is</option>
          <option value="">Not known</option>
          {draft.profiles.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
      </Field>
      <Field label="Pictures of them">
        <Select {...register('pictures')}>
          <option value={AS_IT_IS}>As it is</option>
          {PICTURES.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </Select>
      </Field>
      {errors.root && (
        <p role="alert" className="text-brick">
          {errors.root.message}
        </p>
      )}
      <div className="flex gap-3">
        <Button needs="plan" type="submit" variant="main" disabled={isSubmitting}>
          Change {counted(screens.length, 'screen')}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </form>
  );
}
