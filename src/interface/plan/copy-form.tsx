'use client';

import { useMemo } from 'react';
import { copyDays } from '@/core/booking';
import { addDays, formatDate, parseDate, weekdayIndex, type LocalDate } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { DraftOffer, useKept } from '@/interface/forms/use-draft';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { dateWords } from './site-clock-words';

const TARGETS_SHOWN = 14;
const WEEKS_SHOWN = 8;

/** The dates of a list, with spaces between; what is none is left out. */
const datesIn = (text: string): LocalDate[] =>
  text
    .split(' ')
    .map(parseDate)
    .filter((date) => date !== null);

/** Copies what is booked on a day, or in a week, on to others. */
export function CopyForm({ date, onDone }: { date: LocalDate; onDone: () => void }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const {
    values,
    set,
    clear,
    draft: kept,
  } = useKept(`copy ${formatDate(date)}`, { span: 'day', from: formatDate(date), targets: '', replace: '' });
  const { from } = values;
  const span = values.span === 'week' ? 'week' : 'day';
  const replace = values.replace !== '';
  const targets = useMemo(() => new Set(datesIn(values.targets)), [values.targets]);
  const read = parseDate(from);
  const days = span === 'week' ? 7 : 1;
  const source = read === null ? null : span === 'week' ? addDays(read, -weekdayIndex(read)) : read;
  const edits = useMemo(
    () =>
      source === null || targets.size === 0
        ? []
        : copyDays(draft, source, days, [...targets], { replace, created: new Date().toISOString() }),
    [draft, source, days, targets, replace],
  );
  const choices =
    source === null
      ? []
      : Array.from({ length: span === 'week' ? WEEKS_SHOWN : TARGETS_SHOWN }, (_, i) =>
          addDays(source, (i + 1) * days),
        );
  const toggle = (target: LocalDate) => {
    const next = new Set(targets);
    if (!next.delete(target)) next.add(target);
    set({ targets: [...next].map(formatDate).join(' ') });
  };
  return (
    <section className="space-y-5" aria-label="Copy bookings">
      <DraftOffer draft={kept} />
      <div role="radiogroup" aria-label="Which to copy" className="flex gap-5">
        {(['day', 'week'] as const).map((one) => (
          <label key={one} className="flex items-center gap-2">
            <input
              type="radio"
              name="span"
              className="size-4 accent-dusk"
              checked={span === one}
              onChange={() => set({ span: one, targets: '' })}
            />
            {one === 'day' ? 'A day' : 'A week, Monday to Sunday'}
          </label>
        ))}
      </div>
      <Field label="From" error={source === null ? 'Choose a date.' : undefined}>
        <Input type="date" value={from} onChange={(event) => set({ from: event.target.value, targets: '' })} />
      </Field>
      <fieldset>
        <legend className="text-sm font-semibold">On to</legend>
        <div className="mt-1 grid grid-cols-3 gap-x-4 gap-y-1">
          {choices.map((target) => (
            <label key={target} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-dusk"
                checked={targets.has(target)}
                onChange={() => toggle(target)}
              />
              {span === 'week' ? `week of ${dateWords(target).slice(4)}` : dateWords(target)}
            </label>
          ))}
        </div>
      </fieldset>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-dusk"
          checked={replace}
          onChange={() => set({ replace: replace ? '' : 'yes' })}
        />
        Replace what is booked there
      </label>
      <p className="text-sm text-faint">
        {targets.size === 0
          ? 'Choose the dates to copy to.'
          : edits.length === 0
            ? 'Nothing changes: those dates have the same bookings already.'
            : `${counted(edits.length, 'booking')} will change.`}
      </p>
      <Button
        needs="plan"
        variant="main"
        disabled={edits.length === 0}
        onClick={() =>
          void edit(edits, `Copied to ${counted(targets.size, span)}. Ctrl Z undoes it.`).then((result) => {
            if (!result.ok) return;
            clear();
            onDone();
          })
        }
      >
        Copy
      </Button>
    </section>
  );
}
