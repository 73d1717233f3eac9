'use client';

import { useState } from 'react';
import { nameAmong } from '@/core/booking';
import { isTall, partnerOf } from '@/core/layouts';
import { added, type Layout, type Patch } from '@/core/plan';
import { describeWhen } from '@/core/when';
import { PRIORITIES } from '@/interface/booking/booking-values';
import { useNetwork } from '@/interface/data/provider';
import { OtherReadings } from '@/interface/forms/other-readings';
import { readSaid } from '@/interface/forms/read-said';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { namesProblem } from '@/interface/forms/where-box';
import { WhereField } from '@/interface/forms/where-field';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input, Select } from '@/interface/kit/controls/field';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import { counted } from '@/interface/kit/words/format';
import { turnedLayout } from './turned-layout';

/** Books a layout, and for screens of the other orientation its partner, which is made where there is none: one act, and one undo. */
export function BookOn({ layout, onDone }: { layout: Layout; onDone: () => void }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const [where, setWhere] = useState('');
  const [said, setSaid] = useState('');
  const [priority, setPriority] = useState<string>('3');
  const [turns, setTurns] = useState(true);
  const [wrong, setWrong] = useState<string | null>(null);
  const context = usePhraseContext(where);
  const when = readSaid(said, context);
  const found = where.trim() === '' ? null : selectScreens(draft, where);
  const problem =
    where.trim() === '' ? undefined : (namesProblem(where, draft) ?? (found?.ok === false ? found.message : undefined));
  const screens = found?.ok ? found.value : [];
  const tall = isTall(layout);
  const others = screens.filter((one) => isTall(one) !== tall);
  const same = screens.length - others.length;
  const partner = partnerOf(draft.layouts, layout);
  const [own, other] = tall ? ['portrait', 'landscape'] : ['landscape', 'portrait'];

  const book = async () => {
    if (where.trim() === '') return setWrong('Say on which screens, or type “all”.');
    if (problem !== undefined || !when.ok) return;
    const names = new Set(draft.bookings.map(({ name }) => name));
    const booking = (of: string, on: string, title: string): Patch => {
      const name = nameAmong(names, title);
      names.add(name);
      const times = when.value === undefined ? {} : { when: when.value };
      return added('booking', {
        ...{ name, content: { layout: of }, where: on, priority: Number(priority), ...times },
        created: new Date().toISOString(),
      });
    };
    const text = where.trim();
    const only = (shape: string) => (text === 'all' ? shape : `(${text}) and ${shape}`);
    const patches: Patch[] = [];
    if (!turns || others.length === 0) patches.push(booking(layout.id, text, layout.name));
    else {
      const turned = partner ?? turnedLayout(draft, layout);
      if ('patch' in turned) patches.push(turned.patch);
      const [here, there] = tall ? ['is:portrait', 'not is:portrait'] : ['not is:portrait', 'is:portrait'];
      if (same > 0) patches.push(booking(layout.id, only(here), layout.name));
      patches.push(booking(turned.id, only(there), `${layout.name}, ${other}`));
    }
    const result = await edit(
      patches,
      `${layout.name} is booked on ${counted(screens.length, 'screen')} as a draft. Publish when you’re ready.`,
    );
    if (result.ok) onDone();
    else setWrong(result.message);
  };
  return (
    <form
      noValidate
      aria-label="Put on screens"
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        void book();
      }}
    >
      <WhereField
        plan={draft}
        value={where}
        error={problem ?? (wrong && where.trim() === '' ? wrong : undefined)}
        onChange={(text) => {
          setWhere(text);
          setWrong(null);
        }}
      />
      <Field
        label="When"
        hint="Leave empty for always. E.g. weekdays 5:30–10:00 until 28 Feb"
        error={when.ok ? undefined : when.message}
      >
        <Input value={said} autoComplete="off" invalid={!when.ok} onChange={({ target }) => setSaid(target.value)} />
      </Field>
      {said.trim() !== '' && when.ok && when.value && (
        <OtherReadings text={said} context={context} onChoose={(one) => setSaid(describeWhen(one))} />
      )}
      <Field label="Priority" hint="5 wins over 1. Backdrops show where nothing is booked.">
        <Select value={priority} className="!w-24" onChange={({ target }) => setPriority(target.value)}>
          {PRIORITIES.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </Select>
      </Field>
      {others.length > 0 && (
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-1 accent-dusk"
            checked={turns}
            onChange={({ target }) => setTurns(target.checked)}
          />
          <span>
            {counted(others.length, `${other} screen`)} {others.length === 1 ? 'shows' : 'show'}{' '}
            {partner ? `“${partner.name}”` : `a ${other} version of this layout, made for you`}
            <span className="block text-sm text-faint">
              {!turns
                ? `All get this one. On ${other} screens it has black bars.`
                : same > 0 && `The other ${same} get this one.`}
            </span>
          </span>
        </label>
      )}
      {wrong && where.trim() !== '' && (
        <p role="alert" className="text-sm text-brick">
          {wrong}
        </p>
      )}
      <Button needs="plan" type="submit" variant="main" disabled={!when.ok || problem !== undefined}>
        {screens.length === 0
          ? 'Book it'
          : `Book it on ${counted(screens.length, 'screen')}${others.length > 0 && turns && same > 0 ? ` (${same} ${own}, ${others.length} ${other})` : ''}`}
      </Button>
    </form>
  );
}
