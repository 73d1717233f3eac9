'use client';

import { X } from 'lucide-react';
import { useFieldArray } from 'react-hook-form';
import type { Plan } from '@/core/plan';
import { MOST_DAYS, MOST_SETS, describeWhen } from '@/core/when';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input, Select } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { fieldsInWords, whenValues, type BookingFormOf } from './booking-values';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const DAYS_LATER = Array.from({ length: MOST_DAYS }, (_, i) => i + 1);

/** A repeat as it is said. */
const ruleInWords = (rule: string) => describeWhen({ repeat: rule });

/** When, field by field: each set of hours with its dates, weekdays, windows, single dates, calendars and clock. */
export function WhenFields({ form, plan, today }: { form: BookingFormOf; plan: Plan; today: string }) {
  const sets = useFieldArray({ control: form.control, name: 'sets' });
  const several = sets.fields.length > 1;
  return (
    <div className="space-y-4">
      {sets.fields.map((field, i) => (
        <fieldset key={field.id} className="min-w-0 space-y-4 border-l-2 border-rule pl-4">
          <legend className={several ? 'float-left mb-2 flex w-full items-baseline gap-3' : 'sr-only'}>
            <span className="shrink-0 font-semibold whitespace-nowrap">Hours {i + 1}</span>
            {several && (
              <>
                <span className="min-w-0 truncate text-sm text-faint">
                  {fieldsInWords([form.watch(`sets.${i}`)], today) ?? 'not complete'}
                </span>
                <Button
                  variant="quiet"
                  className="ml-auto shrink-0"
                  aria-label={`Remove hours ${i + 1}`}
                  onClick={() => sets.remove(i)}
                >
                  Remove
                </Button>
              </>
            )}
          </legend>
          <HoursFields form={form} plan={plan} set={i} />
        </fieldset>
      ))}
      <p className="text-sm text-faint">
        Other hours on other days?{' '}
        <Button
          variant="quiet"
          className="!px-0"
          disabled={sets.fields.length >= MOST_SETS}
          onClick={() => sets.append(whenValues({}))}
        >
          Add hours
        </Button>
        {sets.fields.length >= MOST_SETS && ` At most ${counted(MOST_SETS, 'set')} of hours.`}
      </p>
    </div>
  );
}

/** One set of hours, which is the `set`th of the form. */
function HoursFields({ form, plan, set }: { form: BookingFormOf; plan: Plan; set: number }) {
  const { register, formState, watch } = form;
  const errors = formState.errors.sets?.[set] ?? {};
  const rule = watch(`sets.${set}.rule`);
  return (
    <div className="clear-both space-y-4">
      <div className="flex gap-4">
        <Field label="From" hint="Leave empty for no start" error={errors.from?.message} className="flex-1">
          <Input type="date" invalid={!!errors.from} {...register(`sets.${set}.from`)} />
        </Field>
        <Field label="Until" hint="The last day. Leave empty for no end." error={errors.to?.message} className="flex-1">
          <Input type="date" invalid={!!errors.to} {...register(`sets.${set}.to`)} />
        </Field>
      </div>
      {rule === '' ? (
        <Weekdays form={form} set={set} />
      ) : (
        <div>
          <p className="text-sm font-semibold">Repeats</p>
          <p>{ruleInWords(rule)}</p>
          <p className="text-sm text-faint">
            To change this repeat, write it in the sentence above.{' '}
            <Button
              variant="quiet"
              className="!px-0"
              onClick={() => form.setValue(`sets.${set}.rule`, '', { shouldDirty: true, shouldValidate: true })}
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
      <Windows form={form} set={set} />
      <div className="flex gap-4">
        <Field
          label="Also on"
          hint="Dates like 2026-12-24, with commas between"
          error={errors.also?.message}
          className="flex-1"
        >
          <Input className="font-code text-sm" invalid={!!errors.also} {...register(`sets.${set}.also`)} />
        </Field>
        <Field
          label="Except on"
          hint="Dates like 2026-12-24, with commas between"
          error={errors.except?.message}
          className="flex-1"
        >
          <Input className="font-code text-sm" invalid={!!errors.except} {...register(`sets.${set}.except`)} />
        </Field>
      </div>
      <Calendars form={form} plan={plan} set={set} />
      <Field label="Clock" error={errors.clock?.message}>
        <Select {...register(`sets.${set}.clock`)}>
          <option value="site">Each site&rsquo;s own</option>
          {[...new Set([...plan.sites.map((site) => site.timeZone), watch(`sets.${set}.clock`)])]
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

function Weekdays({ form: { watch, setValue }, set }: { form: BookingFormOf; set: number }) {
  const days = watch(`sets.${set}.days`);
  const id = `days-${set}`;
  return (
    <div>
      <p id={id} className="text-sm font-semibold">
        Days
      </p>
      <div role="group" aria-labelledby={id} className="mt-1 flex gap-1">
        {DAYS.map((name, day) => {
          const on = days.includes(day);
          return (
            <button
              key={name}
              type="button"
              aria-pressed={on}
              onClick={() =>
                setValue(`sets.${set}.days`, on ? days.filter((one) => one !== day) : [...days, day], {
                  shouldDirty: true,
                })
              }
              className={`w-12 border py-1 text-sm ${on ? 'border-dusk bg-dusk text-on-dusk' : 'border-rule bg-sheet hover:border-ink'}`}
            >
              {name}
            </button>
          );
        })}
      </div>
      <p className="mt-1 text-sm text-faint">None chosen means every day</p>
    </div>
  );
}

function Windows({ form: { control, register, formState }, set }: { form: BookingFormOf; set: number }) {
  const windows = useFieldArray({ control, name: `sets.${set}.windows` });
  const errors = formState.errors.sets?.[set]?.windows;
  return (
    <div>
      <p className="text-sm font-semibold">Times of day</p>
      <ul className="mt-1 space-y-2">
        {windows.fields.map((field, i) => {
          const wrong = [errors?.[i]?.start?.message, errors?.[i]?.end?.message].filter(Boolean);
          return (
            <li key={field.id}>
              <div className="flex flex-wrap items-center gap-2">
                <Input
                  aria-label={`Window ${i + 1} starts`}
                  placeholder="05:30"
                  className="!w-32"
                  invalid={!!errors?.[i]?.start}
                  {...register(`sets.${set}.windows.${i}.start`)}
                />
                to
                <Input
                  aria-label={`Window ${i + 1} ends`}
                  placeholder="10:00"
                  className="!w-32"
                  invalid={!!errors?.[i]?.end}
                  {...register(`sets.${set}.windows.${i}.end`)}
                />
                <Select
                  aria-label={`Days of window ${i + 1}`}
                  className="!w-40"
                  {...register(`sets.${set}.windows.${i}.days`)}
                >
                  <option value="">that day or night</option>
                  {DAYS_LATER.map((days) => (
                    <option key={days} value={days}>
                      {counted(days, 'day')} later
                    </option>
                  ))}
                </Select>
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
        {windows.fields.length === 0 ? 'All day. ' : '05:30, noon, opening, an hour before closing, sunset. '}
        <Button variant="quiet" className="!px-0" onClick={() => windows.append({ start: '', end: '', days: '' })}>
          Add a window
        </Button>
      </p>
    </div>
  );
}

/** Each calendar: no matter, only on its dates, or not on them. */
function Calendars({ form: { watch, setValue }, plan, set }: { form: BookingFormOf; plan: Plan; set: number }) {
  const [only, not] = watch([`sets.${set}.only`, `sets.${set}.not`]);
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
              setValue(`sets.${set}.only`, place === 'only' ? [...rest(only), id] : rest(only), { shouldDirty: true });
              setValue(`sets.${set}.not`, place === 'not' ? [...rest(not), id] : rest(not), { shouldDirty: true });
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
