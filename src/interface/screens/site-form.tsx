'use client';

import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Conflicts, useRecord } from '@/interface/forms/use-record';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo } from 'react';
import { Controller, useForm } from 'react-hook-form';
import * as z from 'zod';
import { countTags, nameSchema, type Site, removed } from '@/core/plan';
import { zoneSchema, type PhraseContext } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { AutoForm } from '@/interface/forms/auto-form';
import { TagsField } from '@/interface/forms/tags-field';
import { Button } from '@/interface/kit/controls/button';
import { PlaceField } from './place-field';
import { ContentPicker } from '@/interface/forms/content-picker';
import { contentOf, contentValue } from '@/interface/kit/content/content';
import { Field, Input } from '@/interface/kit/controls/field';
import { tagsText, tagsTextSchema } from '@/interface/kit/screens/tags';
import {
  EXCEPTIONS_HINT,
  HOURS_HINT,
  exceptionsText,
  exceptionsTextSchema,
  hoursText,
  hoursTextSchema,
  placeText,
  placeTextSchema,
} from './hours-text';

const siteFormSchema = (context: PhraseContext) =>
  z.object({
    name: nameSchema,
    timeZone: zoneSchema,
    tags: tagsTextSchema,
    place: placeTextSchema,
    hours: hoursTextSchema(context),
    exceptions: exceptionsTextSchema(context),
    backdrop: z.string(),
  });

const ZONES = Intl.supportedValuesOf('timeZone');

/** What people call the fields. */
const FIELD_NAMES = {
  name: 'Name',
  timeZone: 'Time zone',
  tags: 'Tags',
  hours: 'Opening hours',
  exceptions: 'Hours on single dates',
  place: 'Place',
  backdrop: 'Backdrop',
};

const siteValues = (site: Site | null) => ({
  name: site?.name ?? '',
  timeZone: site?.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
  tags: tagsText(site?.tags),
  place: placeText(site?.location),
  hours: hoursText(site?.hours),
  exceptions: exceptionsText(site?.hours),
  backdrop: contentValue(site?.backdrop),
});

/** A site: its clock, its opening hours, its tags for all its screens, and what shows where nothing is booked. */
export function SiteForm({ site, onDone }: { site: Site | null; onDone: (id: string) => void }) {
  const { draft, edit, save } = useNetwork('draft', 'edit', 'save');
  const context = usePhraseContext();
  const schema = useMemo(() => siteFormSchema(context), [context]);
  const form = useForm({
    resolver: zodResolver(schema),
    mode: 'onTouched',
    defaultValues: siteValues(site),
  });
  const record = useRecord(form, {
    kind: 'site',
    object: site,
    valuesOf: siteValues,
    madeOf: { location: ['place'], hours: ['hours', 'exceptions'] },
  });
  const known = useMemo(() => countTags([...draft.sites, ...draft.screens]), [draft]);
  const { register, formState } = form;
  const { errors } = formState;

  const submit = async ({
    name,
    timeZone,
    tags,
    place,
    hours,
    exceptions,
    backdrop,
  }: z.output<ReturnType<typeof siteFormSchema>>) => {
    const content = contentOf(backdrop);
    const open = hours || exceptions ? { ...hours, ...(exceptions ? { dates: exceptions } : {}) } : undefined;
    const result = await save(
      record.patch({ name, timeZone, tags, location: place, hours: open, backdrop: content }),
      site ? undefined : `${name} was added.`,
    );
    if (result.ok && !site) onDone(result.value.ids[0] ?? '');
    return result;
  };

  return (
    <>
      <AutoForm
        form={form}
        about={site ? `site ${site.id}` : 'site new'}
        save={submit}
        create={site ? undefined : 'Add site'}
        held={record.conflicts.length > 0}
        settled={record.settled}
      >
        <Conflicts record={record} names={FIELD_NAMES} />
        <Field label="Name" error={errors.name?.message}>
          <Input invalid={!!errors.name} {...register('name')} />
        </Field>
        <Field label="Time zone" hint="Bookings run on this clock" error={errors.timeZone?.message}>
          <Input list="zones" invalid={!!errors.timeZone} {...register('timeZone')} />
        </Field>
        <datalist id="zones">
          {ZONES.map((zone) => (
            <option key={zone} value={zone} />
          ))}
        </datalist>
        <TagsField
          control={form.control}
          name="tags"
          hint="For all its screens. Separate tags with commas."
          known={known}
        />
        <Field label="Opening hours" hint={HOURS_HINT} error={errors.hours?.message}>
          <Input invalid={!!errors.hours} {...register('hours')} />
        </Field>
        <Field label="Hours on single dates" hint={EXCEPTIONS_HINT} error={errors.exceptions?.message}>
          <Input invalid={!!errors.exceptions} {...register('exceptions')} />
        </Field>
        <PlaceField control={form.control} name="place" />
        <Field label="Backdrop" hint="What its screens show when nothing is booked">
          <Controller
            control={form.control}
            name="backdrop"
            render={({ field: { value, onChange, onBlur } }) => (
              <ContentPicker plan={draft} none="The network’s" {...{ value, onChange, onBlur }} />
            )}
          />
        </Field>
      </AutoForm>
      {site && (
        <Button
          needs="plan"
          variant="grave"
          className="mt-8"
          onClick={() =>
            void edit([removed('site', site)], `${site.name} was deleted. Ctrl Z brings it back.`).then(
              (result) => result.ok && onDone(''),
            )
          }
        >
          Delete this site
        </Button>
      )}
    </>
  );
}
