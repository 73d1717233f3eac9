'use client';

import { useEffect, useRef, useState, type FormEvent } from 'react';
import { DAY } from '@/core/instant';
import { dateOfLocalTime, readMoment, readShift, startOfDate, toInstant, toLocalTime, zoneTable } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { clockTime, dayName, timeNear, zoneName } from '@/interface/kit/words/format';
import { useKey } from './keys';

/** The chosen moment as a clock shows it, and whose clock. Pressed (or with the key m), it reads a time in words: "tomorrow 06:10". */
export function MomentClock() {
  const { moment, isNow, now, go } = useMoment();
  const zone = useZone();
  const [writing, setWriting] = useState(false);
  useKey('m', 'Look at another time, e.g. tomorrow 06:10', () => setWriting(true));
  if (writing) return <MomentEntry zone={zone} from={moment} now={now} onGo={go} onDone={() => setWriting(false)} />;
  return (
    <button
      type="button"
      onClick={() => setWriting(true)}
      title="Look at another time (m)"
      aria-label="Look at another time"
      className="flex min-w-0 flex-1 flex-col justify-center border-r border-rule px-3 text-left hover:bg-well sm:w-40 sm:flex-none lg:w-56 lg:px-5"
    >
      <span className="font-code text-sm leading-tight sm:text-lg" data-testid="moment">
        {clockTime(moment, zone, isNow || undefined)}
      </span>
      <span className="text-sm text-faint max-lg:truncate">
        {dayName(moment, zone)} · your clock <OtherClock moment={moment} zone={zone} />
      </span>
    </button>
  );
}

/** The clock of the selected screens, where it is another than one's own. */
function OtherClock({ moment, zone }: { moment: number; zone: string }) {
  const { seen } = useNetwork('seen');
  const { selected } = useMoment();
  const index = useIndex(seen.plan);
  const zones = new Set([...selected].map((id) => index.sites.get(index.screens.get(id)?.site ?? '')?.timeZone));
  const [other] = zones;
  if (zones.size !== 1 || !other) return null;
  const reads = timeNear(moment, moment, other);
  if (reads === timeNear(moment, moment, zone) && dayName(moment, other) === dayName(moment, zone)) return null;
  return (
    <span className="block">
      {zoneName(other)} {dayName(moment, other) === dayName(moment, zone) ? '' : dayName(moment, other)} {reads}
    </span>
  );
}

function MomentEntry({
  zone,
  from,
  now,
  onGo,
  onDone,
}: {
  zone: string;
  from: number;
  now: number;
  onGo: (to: number | null) => void;
  onDone: () => void;
}) {
  const field = useRef<HTMLInputElement>(null);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => field.current?.focus(), []);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const shift = readShift(field.current?.value ?? '');
    if (shift !== null) {
      onGo(shift === 0 ? null : now + shift);
      return onDone();
    }
    const table = zoneTable(zone);
    const wall = toLocalTime(table, from);
    const today = dateOfLocalTime(toLocalTime(table, now));
    const read = readMoment(field.current?.value ?? '', today, (wall - startOfDate(dateOfLocalTime(wall))) % DAY);
    if (!read.ok) return setError(read.message);
    onGo(toInstant(table, read.value));
    onDone();
  };
  return (
    <form
      onSubmit={submit}
      className="flex min-w-0 flex-1 flex-col justify-center border-r border-rule px-3 sm:w-40 sm:flex-none lg:w-56 lg:px-4"
    >
      <input
        ref={field}
        aria-label="Look at"
        aria-invalid={error !== null || undefined}
        placeholder="tomorrow 06:10"
        className="w-full border border-rule bg-paper px-2 py-1 font-code text-sm aria-invalid:border-brick"
        onKeyDown={(event) => event.key === 'Escape' && onDone()}
        onBlur={onDone}
      />
      <span
        role={error ? 'alert' : undefined}
        className={`truncate text-xs ${error ? 'text-brick' : 'text-faint'}`}
        title={error ?? ''}
      >
        {error ?? 'Enter to go there, Esc to cancel'}
      </span>
    </form>
  );
}
