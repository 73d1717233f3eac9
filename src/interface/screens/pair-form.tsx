'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import * as z from 'zod';
import type { Screen } from '@/core/plan';
import { placeOf, placesOf } from '@/core/walls';
import { answered } from '@/interface/data/answered';
import { pairAction, unpairAction } from '@/web/actions';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { Input, Select } from '@/interface/kit/controls/field';
import { dateTime } from '@/interface/kit/words/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { CommandsMenu } from '@/interface/commands/commands-menu';
import { Outcomes } from '@/interface/commands/outcomes';
import type { ScreenStatus } from '@/services/screens';

import { usePlaces } from './places';
import { WallDisplays } from './wall-displays';

const codeSchema = z.object({ code: z.string().trim().min(1, 'Type the code that the player shows.') });

/** A screen's player: its state, and the code that pairs another. */
export function PairForm({
  screen,
  status,
  isBare = false,
}: {
  screen: Screen;
  status: ScreenStatus | undefined;
  /** Whether troubles and commands stand elsewhere on the page. */
  isBare?: boolean;
}) {
  const { notify } = useNetwork('notify');
  const zone = useZone();
  const alone = useMemo(() => [screen.id], [screen.id]);
  const { register, handleSubmit, formState, setError, reset } = useForm({
    resolver: zodResolver(codeSchema),
    defaultValues: { code: '' },
  });
  const { errors, isSubmitting } = formState;
  const state = status?.state ?? 'unpaired';
  const places = usePlaces().filter((place) => place.screen === screen.id);
  const [chosen, setChosen] = useState<string | null>(null);
  // Of a wall the next display without a player comes first.
  const place = places.find(({ id }) => id === chosen) ?? places.find(({ isFree }) => isFree) ?? places[0];
  const unpair = async (from: string) => {
    const result = await answered(unpairAction(from));
    notify(result.ok ? 'The player was unpaired.' : result.message, !result.ok);
  };
  return (
    <section className="mb-8 border border-rule bg-sheet p-4" aria-label="Player">
      <p className="flex items-center gap-2">
        <Lantern state={state} /> {STATE_WORDS[state]}
        {status?.lastSeen && (
          <span className="text-sm text-faint">offline since {dateTime(Date.parse(status.lastSeen), zone)}</span>
        )}
        {state !== 'unpaired' && (
          <Button needs="operate" variant="quiet" className="ml-auto" onClick={() => void unpair(screen.id)}>
            {screen.wall ? 'Unpair all' : 'Unpair'}
          </Button>
        )}
      </p>
      {screen.wall && status?.parts && (
        <WallDisplays
          wall={screen.wall}
          parts={status.parts}
          onUnpair={(part) => void unpair(placeOf(screen.id, part))}
        />
      )}
      {!isBare &&
        status?.troubles.map((text) => (
          <p key={text} className="mt-1 text-sm text-brick">
            {text}
          </p>
        ))}
      {!isBare && state !== 'unpaired' && (
        <>
          <p className="mt-3 flex flex-wrap gap-2">
            <CommandsMenu screens={alone} />
          </p>
          <Outcomes screens={alone} zone={zone} />
        </>
      )}
      <form
        noValidate
        className="mt-3 flex flex-wrap items-start gap-3"
        onSubmit={(event) =>
          void handleSubmit(async ({ code }) => {
            const result = await answered(pairAction(place?.id ?? screen.id, code));
            if (!result.ok) return setError('code', { message: result.message });
            reset();
            setChosen(null);
            notify(`Paired: ${place?.name ?? screen.name} has a player.`);
          })(event)
        }
      >
        {screen.wall && (
          <Select
            aria-label={`Display of ${screen.name}`}
            value={place?.id}
            onChange={({ target }) => setChosen(target.value)}
          >
            {placesOf(screen).map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
                {places.some((one) => one.id === id && !one.isFree) ? ' (replaces its player)' : ''}
              </option>
            ))}
          </Select>
        )}
        <div className="flex-1">
          <Input
            aria-label={`Code of the player for ${screen.name}`}
            placeholder={place?.isFree ? 'Code on the player, like BCDF-GHJK' : 'Code of its new player'}
            className="font-code uppercase placeholder:font-text placeholder:normal-case"
            autoComplete="off"
            spellCheck={false}
            invalid={!!errors.code}
            {...register('code')}
          />
          {errors.code && (
            <p role="alert" className="mt-1 text-sm text-brick">
              {errors.code.message}
            </p>
          )}
        </div>
        <Button needs="operate" type="submit" disabled={isSubmitting}>
          Pair
        </Button>
      </form>
    </section>
  );
}
