'use client';

import { useState } from 'react';
import { ableScreens } from '@/interface/commands/offered';
import { useSendCommand } from '@/interface/commands/use-send';
import { useNetwork } from '@/interface/data/provider';
import { useCommands, useNewestGlimpses } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { clockTime, dateTime } from '@/interface/kit/words/format';
import { ScreenPicture, VerdictWords, worstOf } from './glimpse-picture';

/** The newest picture of a screen beside what was planned for the same instant, and the button that takes another. */
export function ScreenGlimpse({ screen, zone, large = false }: { screen: string; zone: string; large?: boolean }) {
  const size = large ? 'h-52 w-full' : 'h-24 w-full';
  const { draft, statuses } = useNetwork('draft', 'statuses');
  const [screens] = useState([screen]);
  const glimpses = useNewestGlimpses(screens) ?? [];
  const glimpse = worstOf(glimpses);
  const send = useSendCommand();
  const isOffline = statuses.get(screen)?.state === 'dark';
  const own = draft.screens.find(({ id }) => id === screen);
  const { wall, private: isPrivate, width = 16, height = 9 } = own ?? {};
  const shape = width / height;
  const last = useCommands(screens)?.find(({ kind }) => kind === 'glimpse');
  /** A picture was asked for, and the player has not answered yet. */
  const isWaiting = last?.states.some(({ state }) => state === 'waiting' || state === 'received') ?? false;
  const isAble = ableScreens('glimpse', screens, statuses).length > 0;
  if (isPrivate) return <p className="mt-3 text-sm text-faint">This screen is private. No pictures are taken of it.</p>;
  if (!isAble && !glimpse) return null;
  const at = glimpse ? Date.parse(glimpse.takenAt) : 0;
  return (
    <section aria-label="Picture of the screen" className="mt-4">
      <div className="flex items-baseline gap-3">
        <h3 className="text-base">What it really shows</h3>
        {isAble && (
          <Button
            needs="operate"
            variant="quiet"
            className="ml-auto !px-0"
            disabled={isWaiting}
            onClick={() => void send('glimpse', screens)}
          >
            {!isWaiting ? 'Take a picture' : isOffline ? 'When it is back…' : 'Taking it…'}
          </Button>
        )}
      </div>
      {glimpse ? (
        <>
          <div className="mt-1 grid grid-cols-2 gap-2">
            <figure>
              <ScreenPicture
                {...{ glimpses, wall, shape }}
                which="seen"
                alt="What the screen showed"
                className={size}
              />
              <figcaption className="text-xs text-faint">on the screen</figcaption>
            </figure>
            <figure>
              <ScreenPicture {...{ glimpses, wall, shape }} which="planned" alt="What was planned" className={size} />
              <figcaption className="text-xs text-faint">
                {glimpse.hasPlanned
                  ? 'planned at that moment'
                  : glimpse.verdict === null
                    ? 'what was planned, as soon as they are compared'
                    : 'nothing to compare it with'}
              </figcaption>
            </figure>
          </div>
          <p className="mt-1 flex flex-wrap gap-x-3 text-sm">
            <VerdictWords glimpse={glimpse} />
            <time dateTime={glimpse.takenAt} title={dateTime(at, zone)} className="text-faint">
              {clockTime(at, zone, true)}
            </time>
          </p>
        </>
      ) : (
        <p className="mt-1 text-sm text-faint">No picture yet.</p>
      )}
    </section>
  );
}
