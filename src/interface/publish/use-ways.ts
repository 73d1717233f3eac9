'use client';

import { useState } from 'react';
import type { ObjectKey } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { counted } from '@/interface/kit/words/format';
import type { Docket, GoesOut, Piloting, Publishing } from '@/services/editions';
import { goesOutWords, useAt } from './at-field';
import { chosenWords } from './docket-list';
import { usePilot } from './pilot-form';
import type { Choice } from './use-choice';
import type { Fresh } from './use-fresh';

/** What is done with the changes once they are chosen. Each answers whether it was done. */
export interface Acts {
  readonly onPublish: (how: Publishing) => Promise<boolean>;
  readonly onPlan: (goesOut: GoesOut, how: Publishing) => Promise<boolean>;
  readonly onPilot: (pilot: Piloting, how: Publishing) => Promise<boolean>;
  readonly onAsk: (note: string, chosen?: readonly ObjectKey[]) => Promise<boolean>;
}

export type Ways = ReturnType<typeof useWays>;

/**
 * How the chosen changes go out: at once, at a time, or on some screens first, with a note. Says what the button says, whether
 * it can be pressed, and does it, after it has looked for errors that the changes bring.
 */
export function useWays(
  { docket, next, choice, fresh, busy }: { docket: Docket; next: number; choice: Choice; fresh: Fresh; busy: boolean },
  { onPublish, onPlan, onPilot, onAsk }: Acts,
) {
  const [note, setNote] = useState('');
  const at = useAt();
  const [piloting, setPiloting] = useState(false);
  const [looking, setLooking] = useState(false);
  const pilot = usePilot();
  const zone = useZone();
  const { notify, change } = useNetwork('notify', 'change');
  const { chosen, isWhole, keys, screens, problems } = choice;

  const stopped = fresh.errors.length > 0 && !fresh.accepted;
  // What is looked at ahead is the draft as the page has it: all that the docket counts has to be in it.
  const isHere = change >= docket.change;
  const isSaid = piloting ? pilot.value !== null : at.problem === undefined;
  const isReady =
    isHere &&
    isSaid &&
    !busy &&
    !looking &&
    !stopped &&
    problems.length === 0 &&
    screens !== undefined &&
    (isWhole || chosen.length > 0);

  const words = screens === undefined ? '' : ` to ${counted(screens.length, 'screen')}`;
  const what = isWhole ? 'it' : chosenWords(choice, docket.entries.length);
  const said = piloting
    ? `Try ${what} on ${counted(pilot.screens, 'screen')} first`
    : at.goesOut !== null
      ? `Plan ${what} for ${goesOutWords(at.goesOut, zone)}${words}`
      : isWhole
        ? `Publish edition ${next}${words}`
        : `Publish ${what} as edition ${next}${words}`;

  const send = (how: Publishing) => {
    if (piloting) return pilot.value ? onPilot(pilot.value, how) : Promise.resolve(false);
    return at.goesOut === null ? onPublish(how) : onPlan(at.goesOut, how);
  };
  const publish = async () => {
    const how = { note, ...(isWhole ? {} : { chosen: keys }) };
    setLooking(true);
    const stops = await fresh.stops();
    setLooking(false);
    if (stops !== null) return notify(`Nothing went out: ${stops}`, true);
    if (!(await send(how))) return;
    setNote('');
    setPiloting(false);
    at.say('');
    // If another person edits them later, that is a new change, which isn't chosen with them.
    if (!isWhole) choice.choose([]);
  };
  const ask = async () => {
    if (await onAsk(note, isWhole ? undefined : keys)) setNote('');
  };
  /** An edition is planned or piloted already: what is published now goes out before it, or beside it. */
  const waits = docket.after !== null || docket.pilot;
  return { note, setNote, at, pilot, piloting, setPiloting, looking, waits, said, isReady, publish, ask };
}
