'use client';

import { Textarea } from '@headlessui/react';
import { useState } from 'react';
import { calendarDates, civil, dateOf, dateOfLocalTime, type Calendar, type LocalTime, changed, removed } from '@/core';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/button';
import { Field, Input } from '@/interface/kit/field';
import { counted } from '@/interface/kit/format';
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
        onMake={(name, dates) => edit([{ kind: 'calendar', add: { name, dates } }], `Calendar "${name}" is made.`)}
      />
      <Holidays />
    </div>
  );
}

function CalendarForm({ calendar }: { calendar: Calendar }) {
  const { edit } = useNetwork('edit');
  const [text, setText] = useState(datesText(calendar.dates));
  const read = readDates(text);
  const follows = calendar.holidays !== undefined;
  return (
    <div className="mt-2 space-y-3">
      <Field
        label="Dates"
        hint={
          follows
            ? 'They follow the public holidays, and are kept current.'
            : 'A line each: 2026-12-24, or 2026-12-24 to 2026-12-26'
        }
        error={read.ok ? undefined : read.message}
      >
        <Textarea
          className="h-40 w-full border border-rule bg-sheet p-2 font-code text-xs"
          readOnly={follows}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => {
            if (read.ok && datesText(read.value) !== datesText(calendar.dates))
              void edit(changed('calendar', calendar, { dates: read.value }));
          }}
        />
      </Field>
      <Button
        variant="grave"
        onClick={() =>
          void edit([removed('calendar', calendar)], `Calendar "${calendar.name}" was removed. Ctrl Z brings it back.`)
        }
      >
        Remove this calendar
      </Button>
    </div>
  );
}

const YEARS_WRITTEN_OUT = 3;

/** The last day up to which a file's endless events are written out. */
function horizon() {
  const { year } = civil(dateOfLocalTime(Date.now() as LocalTime));
  return dateOf(year + YEARS_WRITTEN_OUT, 12, 31);
}

function NewCalendar({ onMake }: { onMake: (name: string, dates: Calendar['dates']) => Promise<{ ok: boolean }> }) {
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const [file, setFile] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  const reading = useCalendarFile(file);
  const fromFile = reading.state === 'read' ? reading : null;
  const typed = readDates(text);
  const dates = fromFile
    ? inRuns(fromFile.reader.datesOfEvents(fromFile.file.events, horizon()))
    : typed.ok
      ? typed.value
      : [];
  const make = async () => {
    const result = await onMake(name.trim(), dates);
    if (!result.ok) return;
    setName('');
    setText('');
    setFile('');
  };
  return (
    <section className="space-y-3 border-t border-rule pt-4" aria-label="A new calendar">
      <h3 className="text-lg">A new calendar</h3>
      <Field label="Name of the calendar">
        <Input value={name} onChange={(event) => setName(event.target.value)} placeholder="Storm days" />
      </Field>
      <Field label="Its dates" hint="A line each; or from a file" error={typed.ok ? undefined : typed.message}>
        <Textarea
          className="h-20 w-full border border-rule bg-sheet p-2 font-code text-xs"
          placeholder={'2026-12-05\n2026-12-24 to 2026-12-26'}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </Field>
      <FileText value={file} onChange={setFile} onProblem={setRefused} />
      {refused && (
        <p role="alert" className="text-brick">
          {refused}
        </p>
      )}
      <ReadingLine reading={reading} onCancel={() => setFile('')} />
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
      <Button disabled={name.trim() === '' || dates.length === 0} onClick={() => void make()}>
        Make calendar
      </Button>
    </section>
  );
}
