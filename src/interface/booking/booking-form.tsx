'use client';

import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { removed, type Booking, type Reach } from '@/core';
import { useNetwork } from '@/interface/data/provider';
import { useAnswer, ask } from '@/interface/forecast/client';
import { AutoForm } from '@/interface/forms/auto-form';
import { Button } from '@/interface/kit/button';
import { ContentPicker } from '@/interface/forms/content-picker';
import { Field, Input } from '@/interface/kit/field';
import { OnAir } from '@/interface/forecast/on-air';
import { WhereField } from '@/interface/forms/where-field';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Conflicts, useRecord } from '@/interface/forms/use-record';
import { bookingDocument, bookingFormSchema, bookingValues, type BookingFormOf, WHEN_INPUTS } from './booking-values';
import { NextDays } from './next-days';
import { SaidWhen } from './said-when';
import { WhenFields } from './when-fields';

/** What people call the fields. */
const FIELD_NAMES = {
  name: 'Name',
  content: 'What',
  seconds: 'Seconds',
  where: 'Where',
  said: 'When',
  priority: 'Priority',
  takeover: 'Takeover',
  onHold: 'On hold',
  weave: 'Woven in',
};

const PRIORITIES = ['1', '2', '3', '4', '5'];

/** One booking: what, where, when, and how urgently; and what will come of it. */
export function BookingForm({
  booking,
  begun = {},
  onDone,
}: {
  booking: Booking | null;
  /** What is known of a new one. */
  begun?: Partial<Booking>;
  onDone: () => void;
}) {
  const { draft, drafted, edit, save } = useNetwork('draft', 'drafted', 'edit', 'save');
  const context = usePhraseContext();
  const schema = useMemo(() => bookingFormSchema(context), [context]);
  const form: BookingFormOf = useForm({
    resolver: zodResolver(schema),
    mode: 'onTouched',
    defaultValues: bookingValues(booking, begun),
  });
  const record = useRecord(form, {
    kind: 'booking',
    object: booking,
    valuesOf: bookingValues,
    madeOf: { prepared: ['words', 'lasts'], content: ['content', 'seconds'], when: WHEN_INPUTS },
  });
  const { register, formState, watch } = form;
  const { errors } = formState;
  const fineErrors = (['from', 'to', 'rule', 'windows', 'also', 'except', 'clock'] as const).some((key) => errors[key]);

  // What is written, as a booking: for looking ahead. It is the last valid one while a field is being written.
  const written = watch();
  const key = JSON.stringify(written);
  const valid = useMemo(() => {
    const read = schema.safeParse({ ...written, name: written.name.trim() || 'New booking' });
    return read.success ? { id: booking?.id ?? 'new-0', ...bookingDocument(read.data, booking, new Date()) } : null;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` is all that is written
  }, [key, schema, booking]);
  const reached = useAnswer<Reach | null>(
    async () => (valid ? ask(drafted, { kind: 'reach', booking: valid }) : null),
    [valid, drafted],
    null,
  );
  return (
    <>
      <AutoForm
        form={form}
        about={booking ? `booking ${booking.id}` : 'booking new'}
        create={booking ? undefined : 'Book it'}
        held={record.conflicts.length > 0}
        settled={record.settled}
        fieldOf={({ path }) =>
          path.startsWith('/content')
            ? 'content'
            : path.startsWith('/when/')
              ? (path.split('/')[2] ?? 'name')
              : (path.split('/')[1] ?? 'name')
        }
        save={async (values) => {
          const result = await save(
            record.patch(bookingDocument(values, booking, new Date())),
            booking ? undefined : `${values.name} is booked. Publish the docket when it is right.`,
          );
          if (result.ok && !booking) onDone();
          return result;
        }}
      >
        <Conflicts record={record} names={FIELD_NAMES} />
        <Field label="Name" error={errors.name?.message}>
          <Input invalid={!!errors.name} {...register('name')} />
        </Field>
        <div className="flex gap-4">
          <Field label="What" error={errors.content?.message} className="flex-1">
            <Controller
              control={form.control}
              name="content"
              render={({ field: { value, onChange, onBlur } }) => (
                <ContentPicker
                  plan={draft}
                  none="Choose a playlist or a file"
                  invalid={!!errors.content}
                  {...{ value, onChange, onBlur }}
                />
              )}
            />
          </Field>
          {watch('content').startsWith('media:') && (
            <Field label="Seconds" hint="Empty: its own" error={errors.seconds?.message} className="w-28">
              <Input inputMode="decimal" invalid={!!errors.seconds} {...register('seconds')} />
            </Field>
          )}
        </div>
        <Controller
          control={form.control}
          name="where"
          render={({ field: { value, onChange, onBlur } }) => (
            <WhereField
              plan={draft}
              error={errors.where?.message}
              empty={reached?.empty ?? []}
              {...{ value, onChange, onBlur }}
            />
          )}
        />
        <SaidWhen form={form} context={context} />
        <Disclosure as="div" className="!mt-2" defaultOpen={false}>
          {({ open }) => (
            <>
              <DisclosureButton className="text-sm text-tide underline-offset-2 hover:underline">
                {open ? 'Hide the exact fields' : 'Exact dates, days, times, calendars and clock'}
              </DisclosureButton>
              <DisclosurePanel static={fineErrors} className="mt-3">
                <WhenFields form={form} plan={draft} />
              </DisclosurePanel>
            </>
          )}
        </Disclosure>
        <WhichWins form={form} />
        {valid && reached && <NextDays booking={valid} isNew={!booking} screens={reached.screens} />}
      </AutoForm>
      {booking && (
        <section className="mt-5">
          <h3 className="text-base">On air</h3>
          <OnAir kind="booking" id={booking.id} />
        </section>
      )}
      {booking && (
        <Button
          variant="grave"
          className="mt-8"
          onClick={() =>
            void edit([removed('booking', booking)], `"${booking.name}" was removed. Ctrl Z brings it back.`).then(
              (result) => result.ok && onDone(),
            )
          }
        >
          Remove this booking
        </Button>
      )}
    </>
  );
}

/** The priority as a height and a number; takeover, waking, and hold. */
function WhichWins({ form: { register, watch, trigger, formState } }: { form: BookingFormOf }) {
  const { errors } = formState;
  const { weave } = errors;
  return (
    <fieldset className="space-y-2 border-t border-rule pt-4">
      <legend className="sr-only">Which wins</legend>
      <p id="priority" className="text-sm font-semibold">
        Priority
      </p>
      <div role="radiogroup" aria-labelledby="priority" className="flex items-end gap-1">
        {PRIORITIES.map((priority) => (
          <label key={priority} className="relative flex cursor-pointer flex-col items-center">
            <input type="radio" value={priority} className="peer sr-only" {...register('priority')} />
            <span
              className="w-10 border border-rule bg-sheet peer-checked:border-dusk peer-checked:bg-dusk peer-focus-visible:outline-2 peer-focus-visible:outline-tide"
              style={{ height: 8 + Number(priority) * 6 }}
            />
            <span className="text-sm">{priority}</span>
          </label>
        ))}
        <span className="ml-3 pb-1 text-sm text-faint">5 goes ahead of all other bookings</span>
      </div>
      <Tick
        label="Takeover: ahead of every priority"
        {...register('takeover', { onChange: () => void trigger('weave') })}
      />
      {watch('takeover') && <Tick label="Wakes displays that are in lights-out hours" {...register('wake')} />}
      <Tick label="On hold: kept, but not shown" {...register('onHold')} />
      {watch('takeover') && watch('onHold') && (
        <div className="space-y-3 border-l-4 border-brick pl-3">
          <p className="text-sm text-faint">It stands prepared in Takeovers: fired there it is in force at once.</p>
          <Field label="Words" hint="For who fires it: when to, and whom to call." error={errors.words?.message}>
            <Input invalid={!!errors.words} maxLength={300} {...register('words')} />
          </Field>
          <Field label="How long" hint="30 min, 2 hours; empty: until the all-clear." error={errors.lasts?.message}>
            <Input invalid={!!errors.lasts} {...register('lasts')} />
          </Field>
        </div>
      )}
      <Field
        label="Woven in"
        hint="Empty: it has the screen to itself. Else it has turns in the loop of what shows, never in a takeover."
        error={weave?.message}
      >
        <Input invalid={!!weave} placeholder="10 %, or every 5 min" {...register('weave')} />
      </Field>
    </fieldset>
  );
}

function Tick({
  label,
  ...rest
}: { label: string } & React.InputHTMLAttributes<HTMLInputElement> & { ref?: React.Ref<HTMLInputElement> }) {
  return (
    <label className="flex items-center gap-2">
      <input type="checkbox" className="size-4 accent-dusk" {...rest} /> {label}
    </label>
  );
}
