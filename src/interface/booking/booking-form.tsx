'use client';

import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useMemo, useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { nameAmong } from '@/core/booking';
import type { Reach } from '@/core/forecast';
import { removed, type Booking, type Plan } from '@/core/plan';
import { formatDate } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { useAnswer, ask } from '@/interface/forecast/client';
import { AutoForm } from '@/interface/forms/auto-form';
import { Word } from '@/interface/kit/words/word';
import { Button } from '@/interface/kit/controls/button';
import { ContentPicker } from '@/interface/forms/content-picker';
import { Field, Input, Select, Tick } from '@/interface/kit/controls/field';
import { OnAir } from '@/interface/forecast/on-air';
import { WhereField } from '@/interface/forms/where-field';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Conflicts, useRecord } from '@/interface/forms/use-record';
import {
  PRIORITIES,
  WHEN_INPUTS,
  bookingDocument,
  bookingFormSchema,
  bookingValues,
  whenField,
  type BookingFormOf,
} from './booking-values';
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
  weave: 'Share of the loop',
  cue: 'Starts',
  forTime: 'Lasts',
  overlay: 'Over everything',
  overTakeovers: 'Over takeovers',
};

/** One booking: what, where, when, and how urgently; and what will come of it. */
export function BookingForm({
  booking,
  begun = {},
  onDuplicate,
  onDone,
}: {
  booking: Booking | null;
  /** What is known of a new one. */
  begun?: Partial<Booking>;
  /** Starts a new booking with the values of this one. */
  onDuplicate?: (begun: Partial<Booking>) => void;
  onDone: () => void;
}) {
  const { draft, drafted, edit, save } = useNetwork('draft', 'drafted', 'edit', 'save');
  const [where, setWhere] = useState(booking?.where ?? begun.where ?? 'all');
  const context = usePhraseContext(where);
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
    madeOf: {
      overlay: ['overlay', 'overTakeovers'],
      forMs: ['forTime'],
      prepared: ['words', 'lasts'],
      content: ['content', 'seconds'],
      when: WHEN_INPUTS,
    },
  });
  const { register, formState, watch } = form;
  const { errors } = formState;
  const fineErrors = errors.sets !== undefined;

  // What is written, as a booking: for looking ahead. It is the last valid one while a field is being written.
  const written = watch();
  useEffect(() => setWhere(written.where), [written.where]);
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
              ? whenField(path.split('/').slice(1))
              : path === '/forMs'
                ? 'forTime'
                : (path.split('/')[1] ?? 'name')
        }
        save={async (values) => {
          const result = await save(
            record.patch(bookingDocument(values, booking, new Date())),
            booking ? undefined : `${values.name} is booked as a draft. Publish when you’re ready.`,
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
            <Field label="Seconds" hint="Leave empty for its own time" error={errors.seconds?.message} className="w-28">
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
                <WhenFields form={form} plan={draft} today={formatDate(context.today)} />
              </DisclosurePanel>
            </>
          )}
        </Disclosure>
        <Starts form={form} plan={draft} />
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
        <div className="mt-8 flex flex-wrap gap-3">
          {onDuplicate && (
            <Button needs="plan" onClick={() => onDuplicate(copyOf(booking, draft))}>
              Duplicate…
            </Button>
          )}
          <Button
            needs="plan"
            variant="grave"
            onClick={() =>
              void edit([removed('booking', booking)], `“${booking.name}” was deleted. Ctrl Z brings it back.`).then(
                (result) => result.ok && onDone(),
              )
            }
          >
            Delete this booking
          </Button>
        </div>
      )}
    </>
  );
}

/** What a new booking begins with that is to be like another: all of it, under a name that is free. */
function copyOf({ id: _id, created: _created, ...rest }: Booking, { bookings }: Plan): Partial<Booking> {
  return { ...rest, name: nameAmong(new Set(bookings.map(({ name }) => name)), rest.name) };
}

/** Whether it goes by the clock or waits for a cue, and how a layout lies over what plays. */
function Starts({ form: { register, watch, formState }, plan }: { form: BookingFormOf; plan: Plan }) {
  const { errors } = formState;
  const [cue, content, overlay] = watch(['cue', 'content', 'overlay']);
  const cues = [...plan.cues].sort((a, b) => a.name.localeCompare(b.name));
  return (
    <>
      {content.startsWith('layout:') && cue === '' && (
        <div className="space-y-1">
          <Tick label="Draw it over whatever plays" {...register('overlay')} />
          {overlay && <Tick label="Over takeovers too" {...register('overTakeovers')} />}
          {errors.overlay && <p className="text-sm text-brick">{errors.overlay.message}</p>}
        </div>
      )}
      {(cues.length > 0 || cue !== '') && (
        <div className="flex gap-4">
          <Field label="Starts" error={errors.cue?.message} className="flex-1">
            <Select {...register('cue')}>
              <option value="">By date and time</option>
              {cues.map(({ id, name }) => (
                <option key={id} value={id}>
                  When “{name}” is fired
                </option>
              ))}
            </Select>
          </Field>
          {cue !== '' && (
            <Field label="Lasts" hint="Empty: once through" error={errors.forTime?.message} className="w-36">
              <Input placeholder="30 s" invalid={!!errors.forTime} {...register('forTime')} />
            </Field>
          )}
        </div>
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
      {watch('takeover') && <Tick label="Switch on displays that are in lights-out hours" {...register('wake')} />}
      <Tick label="On hold: kept, but not shown" {...register('onHold')} />
      {watch('takeover') && watch('onHold') && (
        <div className="space-y-3 border-l-4 border-brick pl-3">
          <p className="text-sm text-faint">You will find it in Takeovers, ready to be activated.</p>
          <Field
            label="Instructions"
            hint="For the person who activates it: when to, and who to call."
            error={errors.words?.message}
          >
            <Input invalid={!!errors.words} maxLength={300} {...register('words')} />
          </Field>
          <Field
            label="How long"
            hint="E.g. 30 min or 2 hours. Leave empty for “until the all-clear”."
            error={errors.lasts?.message}
          >
            <Input invalid={!!errors.lasts} {...register('lasts')} />
          </Field>
        </div>
      )}
      <Field
        label="Share of the loop"
        hint={
          <>
            <Word of="weave">Weave</Word> it in: it is mixed in between other items, but never in a takeover. Leave
            empty to have the screen to itself.
          </>
        }
        error={weave?.message}
      >
        <Input invalid={!!weave} placeholder="10 %, or every 5 min" {...register('weave')} />
      </Field>
    </fieldset>
  );
}
