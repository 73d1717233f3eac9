'use client';

import Link from 'next/link';
import { useMemo, useRef } from 'react';
import { numberAtSite } from '@/core/commands';
import type { Screen, Site } from '@/core/plan';
import { dateOfLocalTime, formatDate, toLocalTime, zoneTable } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { useNetwork, useThumbnails } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { dateTime, zoneName } from '@/interface/kit/words/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { BoardPicture } from '@/interface/kit/content/board-picture';
import { Thumb } from '@/interface/kit/content/thumb';
import { useKey } from '@/interface/shell/keys';
import type { ScreenStatus } from '@/services/screens';
import { CommandsMenu } from '@/interface/commands/commands-menu';
import { Outcomes } from '@/interface/commands/outcomes';
import { ScreenGlimpse } from '@/interface/glimpses/screen-glimpse';
import { Aside } from './aside';
import { Coming } from './coming';
import { darkWords } from './dark-words';
import { CuesOn } from './cues-on';
import { OnNow } from './on-now';
import { PutOnForm } from './put-on-form';
import { useScreenAhead } from './use-screen-ahead';

/** One chosen screen: its picture, why it shows this, and its next day. */
export function ScreenAside({
  screen,
  site,
  joins,
  status,
  putting,
  onPut,
  onClose,
}: {
  screen: Screen;
  site: Site | undefined;
  /** Whether no edition knows it yet. */
  joins: boolean;
  status: ScreenStatus | undefined;
  /** Whether something is being put on it at once. */
  putting: boolean;
  onPut: (putting: boolean) => void;
  onClose: () => void;
}) {
  const { moment, isNow } = useMoment();
  const { known, media, board, above, reasons, coming } = useScreenAhead(screen.id);
  const shown = board?.name ?? media?.name;
  const alone = useMemo(() => [screen.id], [screen.id]);
  const thumbnail = useThumbnails();
  const { draft, statuses } = useNetwork('draft', 'statuses');
  const whyRef = useRef<HTMLParagraphElement>(null);
  const zone = site?.timeZone ?? 'UTC';
  useKey('escape', 'Close the screen', onClose);
  useKey('w', 'Why the chosen screen shows this', () => whyRef.current?.focus());
  const state = status?.state ?? 'unpaired';

  return (
    <Aside
      label={`${site?.name ?? ''} · ${screen.name}`}
      onClose={onClose}
      head={
        <>
          <p className="text-sm font-semibold text-faint">{site?.name}</p>
          <h2 className="text-xl">{screen.name}</h2>
          <p className="text-sm text-faint">
            {screen.width} × {screen.height} · {zoneName(zone)} time · number {numberAtSite(draft.screens, screen)} at
            its site
          </p>
        </>
      }
    >
      <div className="mt-3 flex h-40 items-center justify-center bg-glass">
        <span
          className="relative block h-full max-w-full"
          style={{ aspectRatio: `${screen.width} / ${screen.height}` }}
        >
          {board ? (
            <BoardPicture board={board} thumbnail={thumbnail} className="absolute inset-0" />
          ) : (
            <Thumb
              src={thumbnail(media?.id)}
              alt={media?.name ?? 'nothing on screen'}
              className="h-full w-full !bg-transparent"
            />
          )}
          {above.map((one, i) => (
            <BoardPicture key={i} board={one} isAbove thumbnail={thumbnail} className="absolute inset-0" />
          ))}
        </span>
      </div>
      <p className="mt-2 flex items-center gap-2">
        {isNow && (
          <>
            <Lantern state={state} /> {STATE_WORDS[state]}
          </>
        )}
        {shown !== undefined && (
          <span className="truncate text-faint">
            {isNow && '· '}
            {shown}
          </span>
        )}
      </p>
      {isNow &&
        darkWords(
          screen,
          site?.name ?? '',
          draft.screens,
          statuses,
          status?.lastSeen ? dateTime(Date.parse(status.lastSeen), zone) : null,
        ).map((text) => (
          <p key={text} className="mt-1 text-sm">
            {text}
          </p>
        ))}
      {(isNow ? (status?.troubles ?? []) : []).map((text) => (
        <p key={text} className="text-sm text-brick">
          {text}
        </p>
      ))}
      {isNow && <OnNow screen={screen.id} className="mt-3 space-y-1" />}
      {isNow && <CuesOn screen={screen.id} />}
      {putting ? (
        <PutOnForm screens={[screen]} onClose={() => onPut(false)} />
      ) : (
        isNow && (
          <p className="mt-3 flex flex-wrap gap-1.5">
            {known && !joins && (
              <Button needs="operate" className="!px-2.5" onClick={() => onPut(true)}>
                Put on now
              </Button>
            )}
            <CommandsMenu screens={alone} />
          </p>
        )
      )}
      {isNow && <Outcomes screens={alone} zone={zone} />}
      {isNow && <ScreenGlimpse key={screen.id} screen={screen.id} zone={zone} />}
      <h3 className="mt-5 text-base">Why</h3>
      <p ref={whyRef} tabIndex={-1} data-testid="why">
        {known
          ? (reasons?.sentence ?? '…')
          : joins
            ? 'It will be included when you next publish. Until then its player has nothing to show.'
            : 'It didn’t exist then.'}
      </p>
      {joins && known && <p className="mt-1 text-sm text-tide">It will be included when you next publish.</p>}
      <h3 className="mt-5 text-base">From here on</h3>
      <Coming coming={coming} zone={zone} />
      <Link
        href={`/screens/${encodeURIComponent(screen.id)}`}
        className="mt-5 inline-block text-tide underline underline-offset-2"
      >
        Open the screen’s page
      </Link>
      {known && (
        <a
          href={`/api/screens/${encodeURIComponent(screen.id)}/day?date=${formatDate(dateOfLocalTime(toLocalTime(zoneTable(zone), moment)))}`}
          download
          title="From the newest edition, midnight to midnight on its site’s clock, as SMIL 3.0 for other programs"
          className="mt-5 ml-5 inline-block text-tide underline underline-offset-2"
        >
          This day as SMIL
        </a>
      )}
    </Aside>
  );
}
