'use client';

import { useEffect, useRef, useState, type FormEvent } from 'react';
import type { Screen } from '@/core/plan';
import { readUntil, zoneTable } from '@/core/when';
import { zonesOf } from '@/interface/forms/use-phrase-context';
import { answered } from '@/interface/data/answered';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { ContentPicker } from '@/interface/forms/content-picker';
import { Button } from '@/interface/kit/controls/button';
import { contentName, contentOf } from '@/interface/kit/content/content';
import { Field, Input, Select, Tick } from '@/interface/kit/controls/field';
import { counted, timeOnClocks, zoneName } from '@/interface/kit/words/format';
import { putOnAction } from '@/web/actions';
import { whereOf } from './where-of';

const HOUR = '1 hour';

/** Puts a file or a playlist on the chosen screens at once, until a time in words. */
export function PutOnForm({ screens, onClose }: { screens: readonly Screen[]; onClose: () => void }) {
  const { draft, statuses, notify } = useNetwork('draft', 'statuses', 'notify');
  const { now } = useMoment();
  const own = useZone();
  const where = whereOf(screens, draft.screens);
  // A time is that of the screens' clock, where they have one.
  const zones = zonesOf(draft, where);
  const [clock, setClock] = useState<string | null>(null);
  const zone =
    (clock !== null && zones.includes(clock) ? clock : (zones.find((one) => one === own) ?? zones[0])) ?? own;
  const [what, setWhat] = useState('');
  const [said, setSaid] = useState(HOUR);
  const resting = screens.filter(({ id }) => statuses.get(id)?.state === 'resting').length;
  const [wake, setWake] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  // The first thing to choose is what to put on.
  useEffect(() => form.current?.querySelector('input')?.focus(), []);
  const until = readUntil(said, now, zoneTable(zone));
  const content = contentOf(what);
  const put = async (event: FormEvent) => {
    event.preventDefault();
    if (busy) return;
    if (!content) return setProblem('Choose a file or a playlist first.');
    if (!until.ok) return;
    setBusy(true);
    const result = await answered(putOnAction({ content, where, until: until.value, zone, wake: wake && resting > 0 }));
    setBusy(false);
    if (!result.ok) return setProblem(result.message);
    notify(
      `${contentName(content, draft)} is on ${counted(result.value.screens.length, 'screen')} until ${timeOnClocks(until.value, now, own, zones)}.${resting > 0 && !wake ? ` ${restingWords(screens.length, resting, false)}` : ''}`,
    );
    onClose();
  };
  return (
    <form
      ref={form}
      onSubmit={(event) => void put(event)}
      aria-label="Put on now"
      className="mt-3 border border-rule p-3"
    >
      <Field label="What">
        <ContentPicker
          plan={draft}
          value={what}
          none="A file or a playlist"
          onChange={(next) => {
            setWhat(next);
            setProblem(null);
          }}
        />
      </Field>
      <Field
        className="mt-3"
        label="Until"
        error={until.ok ? undefined : until.message}
        hint={
          until.ok
            ? `On until ${timeOnClocks(Math.ceil(until.value / 1000) * 1000, now, own, zones)}. Then the schedule continues.`
            : undefined
        }
      >
        <Input value={said} invalid={!until.ok} onChange={({ target }) => setSaid(target.value)} />
      </Field>
      {zones.length > 1 && (
        <Field className="mt-3" label="Whose clock" hint="These screens have different clocks.">
          <Select value={zone} onChange={({ target }) => setClock(target.value)}>
            {zones.map((one) => (
              <option key={one} value={one}>
                {zoneName(one)}
              </option>
            ))}
          </Select>
        </Field>
      )}
      {resting > 0 && (
        <div className="mt-3 text-sm">
          <Tick
            label={resting === 1 ? 'Switch this display on' : 'Switch these displays on'}
            checked={wake}
            onChange={({ target }) => setWake(target.checked)}
          />
          <p className="mt-1 text-faint">{restingWords(screens.length, resting, wake)}</p>
        </div>
      )}
      {problem !== null && (
        <p role="alert" className="mt-2 text-sm text-brick">
          {problem}
        </p>
      )}
      <div className="mt-3 flex items-center gap-2">
        <Button needs="operate" type="submit" variant="main" disabled={busy || !until.ok}>
          {busy ? 'Putting it on…' : `Put on ${counted(screens.length, 'screen')}`}
        </Button>
        <Button variant="quiet" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

/** What becomes of displays that are in their lights-out hours. */
function restingWords(all: number, resting: number, wake: boolean): string {
  const which =
    resting < all ? `${counted(resting, 'screen')} of ${all}` : all === 1 ? 'This screen' : `All ${all} screens`;
  return resting === 1
    ? `${which} is in lights-out hours and ${wake ? 'is switched on for this' : 'stays dark'}.`
    : `${which} are in lights-out hours and ${wake ? 'are switched on for this' : 'stay dark'}.`;
}
