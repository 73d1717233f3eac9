'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, type UseFormReturn } from 'react-hook-form';
import type { Booking } from '@/core';
import { useNetwork } from '@/interface/data/provider';
import { AutoForm } from '@/interface/kit/auto-form';
import { Button } from '@/interface/kit/button';
import { ContentSelect } from '@/interface/kit/content-field';
import { Field, Input } from '@/interface/kit/field';
import { SelectorField } from '@/interface/kit/selector-field';
import { bookingDocument, bookingFormSchema, bookingValues, type BookingValues } from './booking-values';
import { WhenFields } from './when-fields';

const PRIORITIES = ['1', '2', '3', '4', '5'];

/** One booking: what, where, when, and how urgently. */
export function BookingForm({ booking, onDone }: { booking: Booking | null; onDone: () => void }) {
  const { draft, edit } = useNetwork();
  const form = useForm({
    resolver: zodResolver(bookingFormSchema),
    mode: 'onTouched',
    defaultValues: bookingValues(booking),
  });
  const { register, formState, watch } = form;
  const { errors } = formState;
  const takeover = watch('takeover');
  return (
    <>
      <AutoForm
        form={form}
        create={booking ? undefined : 'Book it'}
        fieldOf={({ path }) =>
          path.startsWith('/content')
            ? 'content'
            : path.startsWith('/when/')
              ? (path.split('/')[2] ?? 'name')
              : (path.split('/')[1] ?? 'name')
        }
        save={async (values) => {
          const result = await edit(
            [{ kind: 'booking', id: booking?.id, document: bookingDocument(values, booking, new Date()) }],
            booking ? undefined : `${values.name} is booked. Publish the docket when it is right.`,
          );
          if (result.ok && !booking) onDone();
          return result;
        }}
      >
        <Field label="Name" error={errors.name?.message}>
          <Input invalid={!!errors.name} {...register('name')} />
        </Field>
        <div className="flex gap-4">
          <Field label="What" error={errors.content?.message} className="flex-1">
            <ContentSelect plan={draft} none="Choose a playlist or a file" {...register('content')} />
          </Field>
          {watch('content').startsWith('media:') && (
            <Field label="Seconds" hint="Empty: its own" error={errors.seconds?.message} className="w-28">
              <Input inputMode="decimal" invalid={!!errors.seconds} {...register('seconds')} />
            </Field>
          )}
        </div>
        <SelectorField plan={draft} error={errors.where?.message} {...register('where')} value={watch('where')} />
        <WhenFields form={form as unknown as UseFormReturn<BookingValues, unknown, never>} plan={draft} />
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
          <Tick label="Takeover: ahead of every priority" {...register('takeover')} />
          {takeover && <Tick label="Wakes displays that are in lights-out hours" {...register('wake')} />}
          <Tick label="On hold: kept, but not shown" {...register('onHold')} />
        </fieldset>
      </AutoForm>
      {booking && (
        <Button
          look="grave"
          className="mt-8"
          onClick={() =>
            void edit(
              [{ kind: 'booking', id: booking.id, document: null }],
              `"${booking.name}" was removed. Ctrl Z brings it back.`,
            ).then((result) => result.ok && onDone())
          }
        >
          Remove this booking
        </Button>
      )}
    </>
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
