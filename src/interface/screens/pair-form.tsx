'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useMemo } from 'react';
import { useForm } from 'react-hook-form';
import * as z from 'zod';
import type { Screen } from '@/core/plan';
import { answered } from '@/interface/data/answered';
import { pairAction, unpairAction } from '@/web/actions';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { Input } from '@/interface/kit/controls/field';
import { dateTime } from '@/interface/kit/words/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { CommandsMenu } from '@/interface/commands/commands-menu';
import { Outcomes } from '@/interface/commands/outcomes';
import type { ScreenStatus } from '@/services/screens';

const codeSchema = z.object({ code: z.string().trim().min(1, 'Type the code that the player shows.') });

/** A screen's player: its state, and the code that pairs another. */
export function PairForm({ screen, status }: { screen: Screen; status: ScreenStatus | undefined }) {
  const { notify } = useNetwork('notify');
  const zone = useZone();
  const alone = useMemo(() => [screen.id], [screen.id]);
  const { register, handleSubmit, formState, setError, reset } = useForm({
    resolver: zodResolver(codeSchema),
    defaultValues: { code: '' },
  });
  const { errors, isSubmitting } = formState;
  const state = status?.state ?? 'unpaired';
  return (
    <section className="mb-8 border border-rule bg-sheet p-4" aria-label="Player">
      <p className="flex items-center gap-2">
        <Lantern state={state} /> {STATE_WORDS[state]}
        {status?.lastSeen && (
          <span className="text-sm text-faint">offline since {dateTime(Date.parse(status.lastSeen), zone)}</span>
        )}
        {state !== 'unpaired' && (
          <Button
            needs="operate"
            variant="quiet"
            className="ml-auto"
            onClick={() =>
              void answered(unpairAction(screen.id)).then((result) =>
                notify(result.ok ? 'The player was unpaired.' : result.message, !result.ok),
              )
            }
          >
            Unpair
          </Button>
        )}
      </p>
      {status?.troubles.map((text) => (
        <p key={text} className="mt-1 text-sm text-brick">
          {text}
        </p>
      ))}
      {state !== 'unpaired' && (
        <>
          <p className="mt-3 flex flex-wrap gap-2">
            <CommandsMenu screens={alone} />
          </p>
          <Outcomes screens={alone} zone={zone} />
        </>
      )}
      <form
        noValidate
        className="mt-3 flex items-start gap-3"
        onSubmit={(event) =>
          void handleSubmit(async ({ code }) => {
            const result = await answered(pairAction(screen.id, code));
            if (!result.ok) return setError('code', { message: result.message });
            reset();
            notify(`Paired: ${screen.name} has a player.`);
          })(event)
        }
      >
        <div className="flex-1">
          <Input
            aria-label={`Code of the player for ${screen.name}`}
            placeholder={
              state === 'unpaired'
                ? 'Code on the player, like BCDF-GHJK'
                : 'Code of another player, to replace this one'
            }
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
