'use client';

import { Textarea } from '@headlessui/react';
import { useEffect, useState } from 'react';
import { answered } from '@/interface/data/answered';
import { holidaysAction } from '@/web/actions';
import { type Calendar, changed, removed } from '@/core/plan';
import { calendarDates, civil, dateOf, dateOfLocalTime, formatDate, type LocalTime } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { SavedInput } from '@/interface/forms/saved-input';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { DraftOffer, useKept } from '@/interface/forms/use-draft';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { datesText, inRuns, readDates } from './date-list';
import { FileText } from './file-text';
import { Holidays } from './holidays-form';
import { Problems } from './problems';
import { ReadingLine } from './reading-line';
import { useCalendarFile } from './use-calendar-file';

/** Calendars of dates, that bookings name by "only on" and "not on": written by hand, from a file, or a country's public holidays. */
export function CalendarsForm() {
  const { draft, edit } = useNetwork('draft', 'edit');
  const [open, setOpen] = useState<string | null>(null);
  return (
    <div className="space-y-6">
      {draft.calendars.length === 0 && (
        <p className="text-faint">
          No calendars yet. A calendar is a list of dates with a name: storm days, holidays. A booking shows only on
          them, or not on them.
        </p>
      )}
      <ul className="border-y border-rule">
        {draft.calendars.map((calendar) => (
          <li key={calendar.id} className="border-b border-rule/60 py-2 last:border-b-0">
            <button
              type="button"
              aria-expanded={open === calendar.id}
              onClick={() => setOpen(open === calendar.id ? null : calendar.id)}
              className="flex w-full items-baseline gap-3 text-left hover:text-tide"
            >
              <strong>{calendar.name}</strong>
              <span className="text-sm text-faint">
                {counted(calendarDates(calendar.dates).size, 'date')}
                {calendar.holidays &&
                  `, public holidays of ${[calendar.holidays.country, calendar.holidays.region].filter(Boolean).join(' ')}`}
              </span>
            </button>
            {open === calendar.id && <CalendarForm calendar={calendar} />}
          </li>
        ))}
      </ul>
      <NewCalendar
        onMake={(name, dates) => edit([{ kind: 'calendar', add: { name, dates } }], `Calendar “${name}” is made.`)}
      />
      <Holidays />
    </div>
  );
}

function CalendarForm({ calendar }: { calendar: Calendar }) {
  const { edit } = useNetwork('edit');
  const context = usePhraseContext();
  return (
    <div className="mt-2 space-y-3">
      {calendar.holidays ? (
        <HolidayList calendar={calendar} holidays={calendar.holidays} />
      ) : (
        <>
          <p className="text-sm font-semibold">
            Dates <span className="font-normal text-faint">a line each: 24 Dec 2026, or 24 Dec to 26 Dec</span>
          </p>
          <SavedInput
            label="Dates"
            of={{ kind: 'calendar', id: calendar.id, field: 'dates' }}
            value={datesText(calendar.dates)}
            rows={8}
            read={(text) => readDates(text, context)}
            save={(dates) => edit(changed('calendar', calendar, { dates }))}
            className="font-code text-xs"
          />
        </>
      )}
      <Button
        needs="plan"
        variant="grave"
        onClick={() =>
          void edit([removed('calendar', calendar)], `Calendar “${calendar.name}” was deleted. Ctrl Z brings it back.`)
        }
      >
        Delete this calendar
      </Button>
    </div>
  );
}

/** The dates of public holidays, with what they are called. */
function HolidayList({ calendar, holidays }: { calendar: Calendar; holidays: NonNullable<Calendar['holidays']> }) {
  const { country, region } = holidays;
  const [names, setNames] = useState<ReadonlyMap<string, string>>(new Map());
  useEffect(() => {
    let here = true;
    void answered(holidaysAction(country, region)).then((found) => {
      if (here && found.ok) setNames(new Map(found.value.map(({ date, name }) => [date, name])));
    });
    return () => {
      here = false;
    };
  }, [country, region]);
  return (
    <>
      <p className="text-sm text-faint">They follow the public holidays, and stay up to date by themselves.</p>
      <ul className="max-h-60 overflow-y-auto text-sm" aria-label={`Dates of ${calendar.name}`}>
        {[...calendarDates(calendar.dates)]
          .sort((a, b) => a - b)
          .map(formatDate)
          .map((date) => (
            <li key={date} className="flex gap-4">
              <span className="font-code text-xs leading-5">{date}</span> {names.get(date)}
            </li>
          ))}
      </ul>
    </>
  );
}

const YEARS_WRITTEN_OUT = 3;

/** The last day up to which a file's endless events are written out. */
function horizon() {
  const { year } = civil(dateOfLocalTime(Date.now() as LocalTime));
  return dateOf(year + YEARS_WRITTEN_OUT, 12, 31);
}

function NewCalendar({ onMake }: { onMake: (name: string, dates: Calendar['dates']) => Promise<{ ok: boolean }> }) {
  const { values, set, clear, draft } = useKept('calendar new', { name: '', text: '', file: '' });
  const { name, text, file } = values;
  const [refused, setRefused] = useState<string | null>(null);
  const reading = useCalendarFile(file);
  const fromFile = reading.state === 'read' ? reading : null;
  const context = usePhraseContext();
  const typed = readDates(text, context);
  const dates = fromFile
    ? inRuns(fromFile.reader.datesOfEvents(fromFile.file.events, horizon()))
    : typed.ok
      ? typed.value
      : [];
  const make = async () => {
    const result = await onMake(name.trim(), dates);
    if (!result.ok) return;
    clear();
  };
  return (
    <section className="space-y-3 border-t border-rule pt-4" aria-label="A new calendar">
      <h3 className="text-lg">A new calendar</h3>
      <DraftOffer draft={draft} />
      <Field label="Name of the calendar">
        <Input value={name} onChange={(event) => set({ name: event.target.value })} placeholder="Storm days" />
      </Field>
      <Field label="Its dates" hint="A line each; or from a file" error={typed.ok ? undefined : typed.message}>
        <Textarea
          className="h-20 w-full border border-rule bg-sheet p-2 font-code text-xs"
          placeholder={'5 Dec 2026\n24 Dec to 26 Dec'}
          value={text}
          onChange={(event) => set({ text: event.target.value })}
        />
      </Field>
      <FileText value={file} onChange={(next) => set({ file: next })} onProblem={setRefused} />
      {refused && (
        <p role="alert" className="text-brick">
          {refused}
        </p>
      )}
      <ReadingLine reading={reading} onCancel={() => set({ file: '' })} />
      {fromFile && (
        <>
          <Problems problems={fromFile.file.problems} />
          <p data-testid="dates-read">
            {counted(fromFile.file.events.length, 'event')}, {counted(calendarDates(dates).size, 'date')}:{' '}
            <span className="font-code text-xs">{datesText(dates).split('\n').slice(0, 6).join(', ')}</span>
            {dates.length > 6 && ' …'}
          </p>
        </>
      )}
      <Button needs="plan" disabled={name.trim() === '' || dates.length === 0} onClick={() => void make()}>
        Make calendar
      </Button>
    </section>
  );
}
