'use client';

import { X } from 'lucide-react';
import { useFieldArray } from 'react-hook-form';
import { describeWhen, type Plan } from '@/core';
import { Button } from '@/interface/kit/button';
import { Field, Input, Select } from '@/interface/kit/field';
import type { BookingFormOf } from './booking-values';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** A repeat as it is said. */
const ruleInWords = (rule: string) => describeWhen({ repeat: rule });

/** When, field by field: dates, weekdays, windows, single dates, calendars, and whose clock. */
export function WhenFields({ form, plan }: { form: BookingFormOf; plan: Plan }) {
  const { register, formState, watch } = form;
  const { errors } = formState;
  return (
    <div className="space-y-4 border-l-2 border-rule pl-4">
      <div className="flex gap-4">
        <Field label="From" hint="Empty: no beginning" error={errors.from?.message} className="flex-1">
          <Input type="date" invalid={!!errors.from} {...register('from')} />
        </Field>
        <Field label="Until" hint="Its last day; empty: no end" error={errors.to?.message} className="flex-1">
          <Input type="date" invalid={!!errors.to} {...register('to')} />
        </Field>
      </div>
      {watch('rule') === '' ? (
        <Weekdays form={form} />
      ) : (
        <div>
          <p className="text-sm font-semibold">Repeats</p>
          <p>{ruleInWords(watch('rule'))}</p>
          <p className="text-sm text-faint">
            Another repeat is written in the sentence above.{' '}
            <Button
              variant="quiet"
              className="!px-0"
              onClick={() => form.setValue('rule', '', { shouldDirty: true, shouldValidate: true })}
            >
              Choose weekdays instead
            </Button>
          </p>
          {errors.rule && (
            <p role="alert" className="text-sm text-brick">
              {errors.rule.message}
            </p>
          )}
        </div>
      )}
      <Windows form={form} />
      <div className="flex gap-4">
        <Field label="Also on" hint="Dates, YYYY-MM-DD" error={errors.also?.message} className="flex-1">
          <Input className="font-code text-sm" invalid={!!errors.also} {...register('also')} />
        </Field>
        <Field label="Except on" hint="Dates, YYYY-MM-DD" error={errors.except?.message} className="flex-1">
          <Input className="font-code text-sm" invalid={!!errors.except} {...register('except')} />
        </Field>
      </div>
      <Calendars form={form} plan={plan} />
      <Field label="Clock" error={errors.clock?.message}>
        <Select {...register('clock')}>
          <option value="site">Each site&rsquo;s own</option>
          {[...new Set([...plan.sites.map((site) => site.timeZone), watch('clock')])]
            .filter((zone) => zone !== 'site')
            .map((zone) => (
              <option key={zone} value={zone}>
                {zone}, the same instants everywhere
              </option>
            ))}
        </Select>
      </Field>
    </div>
  );
}

function Weekdays({ form: { watch, setValue } }: { form: BookingFormOf }) {
  const days = watch('days');
  return (
    <div>
      <p id="days" className="text-sm font-semibold">
        Days
      </p>
      <div role="group" aria-labelledby="days" className="mt-1 flex gap-1">
        {DAYS.map((name, day) => {
          const on = days.includes(day);
          return (
            <button
              key={name}
              type="button"
              aria-pressed={on}
              onClick={() =>
                setValue('days', on ? days.filter((one) => one !== day) : [...days, day], { shouldDirty: true })
              }
              className={`w-12 border py-1 text-sm ${on ? 'border-dusk bg-dusk text-on-dusk' : 'border-rule bg-sheet hover:border-ink'}`}
            >
              {name}
            </button>
          );
        })}
      </div>
      <p className="mt-1 text-sm text-faint">None chosen: every day</p>
    </div>
  );
}

function Windows({ form: { control, register, formState } }: { form: BookingFormOf }) {
  const windows = useFieldArray({ control, name: 'windows' });
  const { errors } = formState;
  return (
    <div>
      <p className="text-sm font-semibold">Times of day</p>
      <ul className="mt-1 space-y-2">
        {windows.fields.map((field, i) => {
          const wrong = [errors.windows?.[i]?.start?.message, errors.windows?.[i]?.end?.message].filter(Boolean);
          return (
            <li key={field.id}>
              <div className="flex items-center gap-2">
                <Input
                  aria-label={`Window ${i + 1} starts`}
                  placeholder="05:30"
                  className="!w-44"
                  invalid={!!errors.windows?.[i]?.start}
                  {...register(`windows.${i}.start`)}
                />
                to
                <Input
                  aria-label={`Window ${i + 1} ends`}
                  placeholder="10:00"
                  className="!w-44"
                  invalid={!!errors.windows?.[i]?.end}
                  {...register(`windows.${i}.end`)}
                />
                <button
                  type="button"
                  aria-label={`Remove window ${i + 1}`}
                  onClick={() => windows.remove(i)}
                  className="p-1 hover:text-tide"
                >
                  <X size={16} aria-hidden />
                </button>
              </div>
              {[...new Set(wrong)].map((problem) => (
                <p key={problem} role="alert" className="text-sm text-brick">
                  {problem}
                </p>
              ))}
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-sm text-faint">
        {windows.fields.length === 0
          ? 'All day. '
          : '05:30, noon, or the site’s hours: opening, an hour before closing. '}
        <Button variant="quiet" className="!px-0" onClick={() => windows.append({ start: '', end: '' })}>
          Add a window
        </Button>
      </p>
    </div>
  );
}

/** Each calendar: no matter, only on its dates, or not on them. */
function Calendars({ form: { watch, setValue }, plan }: { form: BookingFormOf; plan: Plan }) {
  const [only, not] = watch(['only', 'not']);
  if (plan.calendars.length === 0) return null;
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-3">
      {plan.calendars.map(({ id, name }) => (
        <Field key={id} label={name}>
          <Select
            value={only.includes(id) ? 'only' : not.includes(id) ? 'not' : ''}
            onChange={(event) => {
              const place = event.target.value;
              const rest = (list: readonly string[]) => list.filter((one) => one !== id);
              setValue('only', place === 'only' ? [...rest(only), id] : rest(only), { shouldDirty: true });
              setValue('not', place === 'not' ? [...rest(not), id] : rest(not), { shouldDirty: true });
            }}
          >
            <option value="">on any date</option>
            <option value="only">only on its dates</option>
            <option value="not">not on its dates</option>
          </Select>
        </Field>
      ))}
    </div>
  );
}
