'use client';

import { rollup } from 'd3-array';
import { useMemo, useRef, useState } from 'react';
import type { Content } from '@/core/plan';
import { parseSelector } from '@/core/selector';
import { clocksOf, describeWhen } from '@/core/when';
import type * as icalendar from '@/core/formats/icalendar';
import type { CalendarEvent } from '@/core/formats/icalendar';
import { editInBatches } from '@/interface/data/batches';
import { useNetwork } from '@/interface/data/provider';
import { DraftOffer, useKept } from '@/interface/forms/use-draft';
import { Bar } from '@/interface/kit/controls/bar';
import { Button } from '@/interface/kit/controls/button';
import { ContentPicker } from '@/interface/forms/content-picker';
import { contentOf } from '@/interface/kit/content/content';
import { Field } from '@/interface/kit/controls/field';
import { counted, zoneName } from '@/interface/kit/words/format';
import { More } from '@/interface/kit/controls/more';
import { WhereField } from '@/interface/forms/where-field';
import { spanWords } from '../site-clock-words';
import { FileText } from './file-text';
import { Problems } from './problems';
import { ReadingLine } from './reading-line';
import { useCalendarFile } from './use-calendar-file';

/** So many events are listed at first. */
const SHOWN = 100;

/** Takes the events of a calendar file into the draft as bookings: first looked at, then all of them at once. */
export function ImportForm({ onDone }: { onDone: () => void }) {
  const { draft, edit, notify } = useNetwork('draft', 'edit', 'notify');
  const {
    values,
    set,
    clear,
    draft: kept,
  } = useKept('import', {
    text: '',
    what: '',
    where: '',
    clock: 'as the file says',
    left: '',
  });
  const { text, what, where } = values;
  const siteClock = values.clock === 'own';
  const [refused, setRefused] = useState<string | null>(null);
  /** Which events are left out, by their places in the file. */
  const left = useMemo(() => new Set(values.left.split(' ').filter(Boolean).map(Number)), [values.left]);
  const [made, setMade] = useState<number | null>(null);
  const stop = useRef<AbortController | null>(null);
  const [shown, setShown] = useState(SHOWN);
  const reading = useCalendarFile(text);
  const read = reading.state === 'read' ? reading : null;
  const events = useMemo(() => read?.file.events ?? [], [read]);
  const chosen = useMemo(() => events.filter((_, i) => !left.has(i)), [events, left]);
  const needsWhat = chosen.some((one) => one.content === null);
  const needsWhere = chosen.some((one) => one.where === null && one.tags.length === 0);
  const zones = useMemo(() => [...new Set(draft.sites.map((site) => site.timeZone))], [draft.sites]);
  const content = contentOf(what);
  const ready = chosen.length > 0 && (!needsWhat || content !== undefined) && (!needsWhere || parseSelector(where).ok);
  const save = async () => {
    if (!read) return;
    const edits = read.reader.bookingsOf(draft, chosen, {
      content: content ?? (chosen[0]?.content as Content),
      where: where.trim() === '' ? 'all' : where,
      siteClock,
      created: new Date().toISOString(),
    });
    stop.current = new AbortController();
    setMade(0);
    const { made: count, refused: why } = await editInBatches(
      edits,
      (part, goesOn) => edit(part, undefined, goesOn),
      setMade,
      stop.current.signal,
    );
    setMade(null);
    const said = `${counted(count, 'booking')} added. Ctrl Z undoes them.`;
    if (why === null && count === edits.length) {
      notify(said);
      clear();
      onDone();
    } else setRefused(`${why ?? 'Stopped.'} ${count > 0 ? said : 'No booking was added.'}`);
  };
  return (
    <section className="space-y-5" aria-label="A calendar file">
      <DraftOffer draft={kept} />
      <FileText
        value={text}
        onProblem={setRefused}
        onChange={(next) => {
          set({ text: next, left: '' });
          setRefused(null);
        }}
      />
      {refused && (
        <p role="alert" className="text-brick">
          {refused}
        </p>
      )}
      <ReadingLine reading={reading} onCancel={() => set({ text: '' })} />
      {read && <Problems problems={read.file.problems} />}
      {events.length > 0 && (
        <>
          <ul aria-label="Events" className="max-h-64 overflow-y-auto border border-rule bg-sheet">
            {events.slice(0, shown).map((event, i) => (
              <li key={`${event.line} ${i}`} className="border-b border-rule/60 px-3 py-1.5 last:border-b-0">
                <label className="flex items-start gap-2">
                  <input
                    type="checkbox"
                    className="mt-1 size-4 accent-dusk"
                    checked={!left.has(i)}
                    onChange={() => {
                      const next = new Set(left);
                      if (!next.delete(i)) next.add(i);
                      set({ left: [...next].join(' ') });
                    }}
                  />
                  <span>
                    <strong>{event.summary}</strong>, {describeWhen(event.when)}
                    {read && <Becomes event={event} siteClock={siteClock} reader={read.reader} zones={zones} />}
                    <span className="block text-sm text-faint">
                      priority {event.priority}
                      {(event.where ?? event.tags.join(' or '))
                        ? `, where ${event.where ?? event.tags.join(' or ')}`
                        : ''}
                      {event.onHold ? ', on hold' : ''}
                    </span>
                  </span>
                </label>
              </li>
            ))}
            {events.length > shown && (
              <li>
                <More left={events.length - shown} onMore={() => setShown(shown + SHOWN)} />
              </li>
            )}
          </ul>
          {needsWhat && (
            <Field label="What they show" hint="Most calendar files don’t say what to show, so choose it here.">
              <ContentPicker
                plan={draft}
                none="Choose a playlist or a file"
                value={what}
                onChange={(text) => set({ what: text })}
              />
            </Field>
          )}
          {needsWhere && <WhereField plan={draft} value={where} onChange={(text) => set({ where: text })} />}
          <fieldset>
            <legend className="text-sm font-semibold">Whose clock</legend>
            {(
              [
                [false, `As the file says: ${clocksIn(events)}`],
                [true, 'Each site’s own clock: the same hours everywhere'],
              ] as const
            ).map(([own, words]) => (
              <label key={String(own)} className="flex items-center gap-2">
                <input
                  type="radio"
                  name="clock"
                  className="size-4 accent-dusk"
                  checked={siteClock === own}
                  onChange={() => set({ clock: own ? 'own' : 'as the file says' })}
                />
                {words}
              </label>
            ))}
          </fieldset>
          {made === null ? (
            <Button needs="plan" variant="main" disabled={!ready} onClick={() => void save()}>
              Add {counted(chosen.length, 'booking')}
            </Button>
          ) : (
            <Bar share={made / chosen.length} words={`${made} of ${counted(chosen.length, 'booking')} added`}>
              <Button onClick={() => stop.current?.abort()}>Stop</Button>
            </Bar>
          )}
        </>
      )}
    </section>
  );
}

/** For how many zones an event's first time is shown. */
const ZONES_TOLD = 3;

/** What an event comes to on the clocks of the network's sites. */
function Becomes({
  event,
  siteClock,
  reader,
  zones,
}: {
  event: CalendarEvent;
  siteClock: boolean;
  reader: Pick<typeof icalendar, 'whenOf' | 'firstTimes'>;
  zones: readonly string[];
}) {
  const when = useMemo(() => reader.whenOf(event.when, siteClock), [reader, event, siteClock]);
  // On the sites' own clocks it reads the same everywhere.
  const own = clocksOf(when).length === 0;
  const times = useMemo(
    () => reader.firstTimes(when, zones.slice(0, own ? 1 : ZONES_TOLD)),
    [reader, when, zones, own],
  );
  if (times.length === 0) return null;
  return (
    <span className="block text-sm">
      becomes{' '}
      {times
        .map(
          ({ zone, start, end }) => `${spanWords(start, end)} ${own ? 'on each site’s clock' : `in ${zoneName(zone)}`}`,
        )
        .join(', ')}
      {!own && zones.length > times.length && ' …'}
    </span>
  );
}

/** The clocks that events are written in, the commonest first: "5 events in UTC, 1 without a zone". */
function clocksIn(events: readonly CalendarEvent[]): string {
  const count = rollup(
    events,
    (list) => list.length,
    ({ when }) => clocksOf(when)[0] ?? '',
  );
  return [...count]
    .sort((a, b) => b[1] - a[1])
    .slice(0, ZONES_TOLD)
    .map(
      ([zone, n]) =>
        `${counted(n, 'event')} ${zone === '' ? 'without a zone' : `in ${zoneName(zone)}${zone === 'UTC' ? '' : ' time'}`}`,
    )
    .join(', ');
}
