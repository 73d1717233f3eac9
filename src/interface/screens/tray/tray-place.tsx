'use client';

import { useState } from 'react';
import { markOf } from '@/core/enrolment';
import { answered } from '@/interface/data/answered';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch, useTray } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { counted, spell } from '@/interface/kit/words/format';
import type { WaitingPlayer } from '@/services/screens';
import { giveScreensAction, sendAwayAction } from '@/web/actions';
import { PlaceSelect, ReplacedWords } from '../place-select';
import { usePlaces } from '../places';
import { ScreenViews } from '../views';
import { EnrolmentKeys } from './enrolment-keys';
import { screensFor } from './screens-for';

/** From so long on a waiting player counts as switched off. */
const SILENT_MS = 30_000;

/** Players that came with an enrolment key and wait to be given their screens. */
export function TrayPlace() {
  const { notify } = useNetwork('notify');
  const places = usePlaces();
  const tray = useTray();
  const refetch = useRefetch('tray');
  const { now } = useMoment();
  const [chosen, setChosen] = useState<ReadonlyMap<string, string>>(new Map());
  const [failed, setFailed] = useState<ReadonlyMap<string, string>>(new Map());
  const [busy, setBusy] = useState(false);
  const free = places.flatMap(({ id, isFree }) => (isFree ? [id] : []));
  const waiting = tray?.waiting ?? [];
  const given = screensFor(waiting, chosen, free);
  const replaced = [...given.values()].filter((id) => !free.includes(id)).length;
  const give = async () => {
    setBusy(true);
    const result = await answered(
      giveScreensAction([...given].map(([player, screen]) => ({ waiting: player, screen }))),
    );
    setBusy(false);
    refetch();
    if (!result.ok) return notify(result.message, true);
    const wrong = result.value.filter(({ error }) => error !== null);
    setFailed(new Map(wrong.map(({ waiting: player, error }) => [player, error ?? ''])));
    setChosen(new Map());
    notify(`${counted(result.value.length - wrong.length, 'player')} paired.`);
  };
  const away = async (player: WaitingPlayer) => {
    const result = await answered(sendAwayAction(player.id));
    refetch();
    notify(result.ok ? `Player ${player.number} was removed. It shows a code now.` : result.message, !result.ok);
  };
  return (
    <div className="px-3 pb-8 sm:px-6">
      <div className="sticky top-0 z-10 flex flex-wrap items-center gap-x-5 gap-y-2 bg-paper py-3">
        <h1 className="sr-only">Waiting players</h1>
        <ScreenViews here="/screens/tray" />
        {waiting.length > 0 && <p className="text-faint">{counted(waiting.length, 'player')} waiting</p>}
      </div>
      {tray && waiting.length === 0 && (
        <Empty title="No player is waiting">
          Players that start with an enrolment key appear here within seconds. Each shows a number in a colour.
        </Empty>
      )}
      {waiting.length > 0 && (
        <>
          <p className="max-w-prose text-faint">
            Each of these players shows its number in this colour. Choose which screen each one is, then pair them.
          </p>
          <ul className="mt-3 max-w-5xl">
            {waiting.map((player) => {
              const mark = markOf(player.number);
              const screen = given.get(player.id);
              const silent = now - Date.parse(player.seenAt);
              return (
                <li key={player.id} className="flex flex-wrap items-center gap-x-5 gap-y-2 border-t border-rule py-3">
                  <span
                    className="w-20 border border-rule py-1 text-center font-semibold"
                    style={{ background: mark.colour, color: mark.ink }}
                  >
                    <span className="text-2xl">{player.number}</span>
                    <span className="block text-xs">{mark.name}</span>
                  </span>
                  <span className="min-w-48 flex-1">
                    <strong className="[overflow-wrap:anywhere]">{player.serial}</strong>
                    <span className="block text-sm text-faint">
                      from {player.address} · by “{player.key}” · for{' '}
                      {spell(Math.max(0, now - Date.parse(player.since)))}
                    </span>
                    {silent > SILENT_MS && (
                      <span className="block text-sm text-brick">Offline for {spell(silent)}.</span>
                    )}
                    {failed.has(player.id) && (
                      <span role="alert" className="block text-sm text-brick">
                        {failed.get(player.id)}
                      </span>
                    )}
                  </span>
                  <PlaceSelect
                    label={`Screen for player ${player.number}`}
                    className="!w-72"
                    value={screen ?? ''}
                    none="Not now"
                    places={places}
                    onChange={(place) => setChosen(new Map(chosen).set(player.id, place))}
                  />
                  <Button needs="operate" variant="quiet" onClick={() => void away(player)}>
                    Remove
                  </Button>
                </li>
              );
            })}
          </ul>
          <ReplacedWords count={replaced} />
          <Button
            needs="operate"
            variant="main"
            className="mt-4"
            disabled={busy || given.size === 0}
            onClick={() => void give()}
          >
            {busy ? 'Pairing…' : `Pair ${counted(given.size, 'player')}`}
          </Button>
        </>
      )}
      {tray && <EnrolmentKeys keys={tray.keys} />}
    </div>
  );
}
