'use client';

import { Textarea } from '@headlessui/react';
import { useId } from 'react';

const MOST_BYTES = 2_000_000;

/** The text of a calendar file: chosen, dropped, or pasted. */
export function FileText({
  value,
  onChange,
  onProblem,
}: {
  value: string;
  onChange: (text: string) => void;
  onProblem: (sentence: string) => void;
}) {
  const id = useId();
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST_BYTES) return onProblem('This file is larger than 2 MB. Export a shorter span.');
    onChange(await file.text());
  };
  return (
    <div>
      <label htmlFor={id} className="text-sm font-semibold">
        A calendar file (.ics)
      </label>
      <input
        id={id}
        type="file"
        accept=".ics,text/calendar"
        className="mt-1 block w-full border border-rule bg-sheet p-2 text-sm file:mr-3 file:border file:border-rule file:bg-paper file:px-3 file:py-1"
        onChange={(event) => void take(event.target.files?.[0])}
      />
      <Textarea
        aria-label="Or paste it here"
        placeholder="Or drop or paste it here: BEGIN:VCALENDAR…"
        className="mt-2 h-28 w-full border border-rule bg-sheet p-2 font-code text-xs"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void take(event.dataTransfer.files[0]);
        }}
      />
    </div>
  );
}
