'use client';

import { useMemo, useState } from 'react';
import { readScreens, type ReadScreens } from '@/core/formats/screens';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Field, TextArea } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';

/** So many lines are shown; what is wrong comes first. */
const MOST = 100;
const WHAT = { new: 'new', changed: 'changed', same: 'stays as it is' };

/** Adds and changes screens from a spreadsheet: what it comes to is seen before it is done, and nothing is done by halves. */
export function ReadList({ onDone }: { onDone: () => void }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const [text, setText] = useState('');
  const [busy, setBusy] = useState(false);
  const read = useMemo(() => (text.trim() === '' ? null : readScreens(text, draft)), [text, draft]);
  const take = async (file: File | undefined) => file && setText(await file.text());
  const save = async ({ patches, lines }: ReadScreens) => {
    setBusy(true);
    const result = await edit(patches, `${counted(lines.length, 'screen')} read from a list.`);
    setBusy(false);
    if (result.ok) onDone();
  };
  const wrong = read?.lines.filter(({ problem }) => problem !== null).length ?? 0;
  const count = (what: 'new' | 'changed') => read?.lines.filter((one) => one.what === what).length ?? 0;
  const shown = [...(read?.lines ?? [])].sort((a, b) => Number(b.problem !== null) - Number(a.problem !== null));
  return (
    <>
      <p className="text-faint">
        Choose a CSV file, or paste from a spreadsheet. The first line names the columns: Screen and Site, and if you
        like Size, Tags, Profile, Notes, and Time zone for a new site. A screen with the same site and name, or the same
        Id, is changed; an empty cell leaves a value as it is.
      </p>
      <p className="mt-4">
        <input
          type="file"
          accept=".csv,text/csv,text/plain"
          aria-label="CSV file of screens"
          onChange={({ target }) => void take(target.files?.[0])}
        />
      </p>
      <Field label="Screens" className="mt-4" error={read?.problem ?? undefined}>
        <TextArea
          rows={6}
          spellCheck={false}
          className="font-code"
          placeholder={'Screen;Site;Size;Tags\nDeparture hall;Brennøy Landing;1920 × 1080;hall'}
          value={text}
          onChange={({ target }) => setText(target.value)}
        />
      </Field>
      {read && read.lines.length > 0 && (
        <>
          <p role="status" className="mt-4 font-semibold">
            {[
              `${count('new')} new`,
              `${count('changed')} changed`,
              ...(read.newSites.length > 0
                ? [`${counted(read.newSites.length, 'new site')}: ${read.newSites.join(', ')}`]
                : []),
            ].join(', ')}
            .
            {wrong > 0 &&
              ` ${wrong === 1 ? '1 line has a problem' : `${wrong} lines have problems`}. Nothing is saved until they are right.`}
          </p>
          <table className="mt-2 w-full text-left text-sm">
            <caption className="sr-only">What the list comes to</caption>
            <thead className="text-xs text-faint">
              <tr>
                <th className="pr-3 font-normal">Line</th>
                <th className="font-normal">Screen</th>
                <th className="font-normal">What happens</th>
              </tr>
            </thead>
            <tbody>
              {shown.slice(0, MOST).map(({ line, name, site, what, problem }) => (
                <tr key={line} className="border-t border-rule align-top">
                  <td className="py-1 pr-3 font-code text-sm">{line}</td>
                  <td className="py-1 pr-3">
                    {site} · {name}
                  </td>
                  <td className={`py-1 ${problem ? 'text-brick' : ''}`}>{problem ?? WHAT[what]}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {shown.length > MOST && <p className="mt-1 text-sm text-faint">and {shown.length - MOST} more</p>}
        </>
      )}
      <div className="mt-5 flex gap-3">
        <Button
          needs="plan"
          variant="main"
          disabled={busy || !read || read.patches.length === 0}
          onClick={() => read && void save(read)}
        >
          {busy ? 'Saving…' : `Save ${counted(count('new') + count('changed'), 'screen')}`}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </>
  );
}
