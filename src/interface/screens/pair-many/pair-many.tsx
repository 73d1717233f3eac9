'use client';

import { useState } from 'react';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Field, TextArea } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { pairManyAction } from '@/web/actions';
import { PlaceSelect, ReplacedWords } from '../place-select';
import { usePlaces } from '../places';
import { readPairings } from './pairings';

/** Pairs many players at once: a list of the codes that they show, each with its screen. What fails stays in the list. */
export function PairMany({ onDone }: { onDone: () => void }) {
  const { notify } = useNetwork('notify');
  const places = usePlaces();
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState<ReadonlyMap<string, string>>(new Map());
  const [failed, setFailed] = useState<ReadonlyMap<string, string>>(new Map());
  const [busy, setBusy] = useState(false);
  const free = new Set(places.flatMap(({ id, isFree }) => (isFree ? [id] : [])));
  const lines = readPairings(text, places, chosen);
  const ready = lines.filter(({ problem, screen }) => problem === null && screen !== null);
  const replaced = ready.filter(({ screen }) => screen !== null && !free.has(screen)).length;
  const pair = async () => {
    setBusy(true);
    const result = await answered(pairManyAction(ready.map(({ code, screen }) => ({ code, screen: screen ?? '' }))));
    setBusy(false);
    if (!result.ok) return notify(result.message, true);
    const wrong = new Map(result.value.flatMap(({ code, error }) => (error === null ? [] : [[code, error] as const])));
    const done = new Set(ready.map(({ code }) => code).filter((code) => !wrong.has(code)));
    setFailed(wrong);
    notify(`${counted(done.size, 'player')} paired.`);
    if (wrong.size === 0 && ready.length === lines.length) return onDone();
    // What is left to do stays, as it was written.
    setChosen(new Map(lines.flatMap(({ code, screen }) => (screen && !done.has(code) ? [[code, screen]] : []))));
    setText(lines.flatMap(({ code, named }) => (done.has(code) ? [] : [`${code} ${named}`.trim()])).join('\n'));
  };
  return (
    <>
      <p className="text-faint">
        {free.size === 0
          ? 'All screens have a player. Codes replace the players of the screens that you choose.'
          : `${counted(free.size, 'screen')} without a player.`}
      </p>
      <Field
        label="Codes, one per line"
        hint="Each player shows its code. Add the screen’s name after a code, or paste both from a spreadsheet. A code alone gets the next screen without a player."
        className="mt-4"
      >
        <TextArea
          rows={6}
          spellCheck={false}
          className="font-code"
          placeholder={'BCDF-GHJK Departure hall\nLMNP-QRST'}
          value={text}
          onChange={({ target }) => setText(target.value)}
        />
      </Field>
      {lines.length > 0 && (
        <table className="mt-4 w-full text-left">
          <caption className="sr-only">Which player goes to which screen</caption>
          <thead className="text-xs text-faint">
            <tr>
              <th className="font-normal">Code</th>
              <th className="font-normal">Screen</th>
            </tr>
          </thead>
          <tbody>
            {lines.map(({ code, screen, problem }, i) => {
              const error = failed.get(code) ?? problem;
              return (
                <tr key={`${code} ${i}`} className="align-top">
                  <td className="py-1.5 pr-3 font-code text-sm whitespace-nowrap">{code}</td>
                  <td className="py-1">
                    <PlaceSelect
                      label={`Screen for ${code}`}
                      className="!py-1"
                      value={screen ?? ''}
                      none={screen === null ? 'Choose a screen' : undefined}
                      places={places}
                      onChange={(place) => setChosen(new Map(chosen).set(code, place))}
                    />
                    {error !== null && (
                      <p role="alert" className="text-sm text-brick">
                        {error}
                      </p>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <ReplacedWords count={replaced} />
      <div className="mt-5 flex gap-3">
        <Button needs="operate" variant="main" disabled={busy || ready.length === 0} onClick={() => void pair()}>
          {busy ? 'Pairing…' : `Pair ${counted(ready.length, 'player')}`}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </>
  );
}
