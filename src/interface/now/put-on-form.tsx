'use client';

import { useEffect, useRef, useState, type FormEvent } from 'react';
import { readUntil, zoneTable, type Screen } from '@/core';
import { answered } from '@/interface/data/answered';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { ContentPicker } from '@/interface/forms/content-picker';
import { Button } from '@/interface/kit/button';
import { contentName, contentOf } from '@/interface/kit/content';
import { Field, Input } from '@/interface/kit/field';
import { counted, timeNear } from '@/interface/kit/format';
import { putOnAction } from '@/web/actions';
import { whereOf } from './where-of';

const HOUR = '1 hour';

/** Puts a file or a playlist on the chosen screens at once, until a time as one says it. */
export function PutOnForm({ screens, onClose }: { screens: readonly Screen[]; onClose: () => void }) {
  const { draft, notify } = useNetwork('draft', 'notify');
  const { now } = useMoment();
  const zone = useZone();
  const [what, setWhat] = useState('');
  const [said, setSaid] = useState(HOUR);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  // What to put on is what one says next.
  useEffect(() => form.current?.querySelector('input')?.focus(), []);
  const until = readUntil(said, now, zoneTable(zone));
  const content = contentOf(what);
  const put = async (event: FormEvent) => {
    event.preventDefault();
    if (busy) return;
    if (!content) return setProblem('Choose a file or a playlist first.');
    if (!until.ok) return;
    setBusy(true);
    const where = whereOf(screens, draft.screens);
    const result = await answered(putOnAction({ content, where, until: until.value, zone }));
    setBusy(false);
    if (!result.ok) return setProblem(result.message);
    notify(
      `${contentName(content, draft)} is on ${counted(result.value.screens.length, 'screen')} until ${timeNear(until.value, now, zone)}.`,
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
            ? `On until ${timeNear(Math.ceil(until.value / 1000) * 1000, now, zone)}, then as it is planned again.`
            : undefined
        }
      >
        <Input value={said} invalid={!until.ok} onChange={({ target }) => setSaid(target.value)} />
      </Field>
      {problem !== null && (
        <p role="alert" className="mt-2 text-sm text-brick">
          {problem}
        </p>
      )}
      <div className="mt-3 flex items-center gap-2">
        <Button type="submit" variant="main" disabled={busy || !until.ok}>
          {busy ? 'Putting it on…' : `Put on ${counted(screens.length, 'screen')}`}
        </Button>
        <Button variant="quiet" onClick={onClose}>
          Not now
        </Button>
      </div>
    </form>
  );
}
