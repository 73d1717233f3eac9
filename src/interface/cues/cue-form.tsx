'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import Link from 'next/link';
import { useForm } from 'react-hook-form';
import * as z from 'zod';
import { LATE_MS, cueSchema, durationWords, nameSchema, removed, type Cue } from '@/core/plan';
import { reachedBy, waitingFor } from '@/core/forecast';
import { selectorWithNames } from '@/core/selector';
import { useNetwork } from '@/interface/data/provider';
import { AutoForm } from '@/interface/forms/auto-form';
import { durationTextSchema } from '@/interface/forms/seconds';
import { Conflicts, useRecord } from '@/interface/forms/use-record';
import { pathTo } from '@/interface/kit/content/path-to';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input, Select } from '@/interface/kit/controls/field';
import { screensWords } from './words';

const KEYS = Array.from({ length: 10 }, (_, key) => String(key));

const cueFormSchema = z.object({
  name: nameSchema,
  key: z.string().transform((text) => (text === '' ? undefined : Number(text))),
  late: durationTextSchema(cueSchema.shape.lateMs.unwrap()),
});
type Values = z.input<typeof cueFormSchema>;

const FIELD_NAMES = { name: 'Name', key: 'Key', late: 'Counts within' };

const valuesOf = (cue: Omit<Cue, 'id'> | null): Values => ({
  name: cue?.name ?? '',
  key: cue?.key === undefined ? '' : String(cue.key),
  late: cue?.lateMs === undefined ? '' : durationWords(cue.lateMs),
});

/** A cue: its name, its number key, and how late it still counts; and what waits for it. */
export function CueForm({ cue, onDone }: { cue: Cue | null; onDone: () => void }) {
  const { draft, edit, save } = useNetwork('draft', 'edit', 'save');
  const form = useForm({ resolver: zodResolver(cueFormSchema), mode: 'onTouched', defaultValues: valuesOf(cue) });
  const record = useRecord(form, { kind: 'cue', object: cue, valuesOf, madeOf: { lateMs: ['late'] } });
  const { register, formState } = form;
  const { errors } = formState;
  const waiting = cue ? waitingFor(draft, cue.id) : [];
  const submit = async ({ late, ...values }: z.output<typeof cueFormSchema>) => {
    const result = await save(
      record.patch({ ...values, lateMs: late }),
      cue ? undefined : `${values.name} is added as a draft. Choose it in a booking, then publish.`,
    );
    if (result.ok && !cue) onDone();
    return result;
  };
  return (
    <>
      <AutoForm
        form={form}
        about={cue ? `cue ${cue.id}` : 'cue new'}
        create={cue ? undefined : 'Add it'}
        held={record.conflicts.length > 0}
        settled={record.settled}
        fieldOf={({ path }) => (path === '/lateMs' ? 'late' : (path.split('/')[1] ?? 'name'))}
        save={submit}
      >
        <Conflicts record={record} names={FIELD_NAMES} />
        <Field label="Name" error={errors.name?.message}>
          <Input invalid={!!errors.name} {...register('name')} />
        </Field>
        <Field
          label="Number key at the screen"
          hint="On the remote control or keyboard. It fires on that screen alone, also without a network."
          error={errors.key?.message}
        >
          <Select {...register('key')}>
            <option value="">None</option>
            {KEYS.map((key) => (
              <option key={key}>{key}</option>
            ))}
          </Select>
        </Field>
        <Field
          label="Counts within"
          hint={`A screen that hears of it later doesn’t show it. Empty: ${durationWords(LATE_MS)}.`}
          error={errors.late?.message}
        >
          <Input invalid={!!errors.late} placeholder={durationWords(LATE_MS)} {...register('late')} />
        </Field>
      </AutoForm>
      {cue && (
        <section className="mt-6">
          <h3 className="text-base">Bookings that start with it</h3>
          {waiting.length === 0 && (
            <p className="text-faint">
              Nothing yet. In a booking, choose “When “{cue.name}” is fired”. A key whose cue has no booking is the way
              back: it ends what the other keys chose.
            </p>
          )}
          <ul>
            {waiting.map(({ id, name, where, forMs }) => (
              <li key={id}>
                <Link href={pathTo({ kind: 'booking', id })} className="text-tide underline underline-offset-2">
                  {name}
                </Link>{' '}
                <span className="text-faint">
                  on {selectorWithNames(where, draft)}, {forMs === undefined ? 'once through' : durationWords(forMs)}
                </span>
              </li>
            ))}
          </ul>
          {waiting.length > 0 && (
            <p className="mt-1 text-sm text-faint">{screensWords(reachedBy(draft, cue.id).length)} in all.</p>
          )}
        </section>
      )}
      {cue && (
        <Button
          needs="plan"
          variant="grave"
          className="mt-8"
          onClick={() =>
            void edit([removed('cue', cue)], `“${cue.name}” was deleted. Ctrl Z brings it back.`).then(
              (result) => result.ok && onDone(),
            )
          }
        >
          Delete this cue
        </Button>
      )}
    </>
  );
}
