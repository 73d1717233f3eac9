'use client';

import Link from 'next/link';
import { useMemo, useState } from 'react';
import { numberAtSite } from '@/core/commands';
import { troubleKind } from '@/core/health';
import { changed, type Screen, type Site } from '@/core/plan';
import { done, misread, type Result } from '@/core/refusal';
import { CommandsMenu } from '@/interface/commands/commands-menu';
import { Outcomes } from '@/interface/commands/outcomes';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useScreenHealth } from '@/interface/data/queries';
import { SavedInput } from '@/interface/forms/saved-input';
import { ScreenGlimpse } from '@/interface/glimpses/screen-glimpse';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { Sheet } from '@/interface/kit/controls/sheet';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { dateTime, dayName, zoneName } from '@/interface/kit/words/format';
import { Coming } from '@/interface/now/coming';
import { darkWords } from '@/interface/now/dark-words';
import { OnNow } from '@/interface/now/on-now';
import { PutOnForm } from '@/interface/now/put-on-form';
import { useScreenAhead } from '@/interface/now/use-screen-ahead';
import { PairForm } from '@/interface/screens/pair-form';
import { ScreenForm } from '@/interface/screens/screen-form';
import { DayBand } from './day-band';
import { DisplayFacts } from './display-facts';
import { HealthCharts } from './health-charts';
import { PlacePhoto } from './place-photo';
import { PlayerFactsList } from './player-facts';
import { StateBand } from './state-band';
import { TagsBrought } from './tags-brought';

const NOTES_AT_MOST = 2000;

/** The page of a screen, by its id: a sentence if there is none. */
export function ScreenById({ id }: { id: string }) {
  const { draft } = useNetwork('draft');
  const index = useIndex(draft);
  const screen = index.screens.get(id);
  if (!screen)
    return (
      <Empty title="This screen doesn’t exist">
        It may have been deleted. Undo brings it back; <Link href="/screens">Screens</Link> lists the others.
      </Empty>
    );
  return <ScreenPage key={id} screen={screen} site={index.sites.get(screen.site)} />;
}

/** All of one screen: what it shows, why, what comes; how it was; its player; what its tags bring. */
function ScreenPage({ screen, site }: { screen: Screen; site: Site | undefined }) {
  const { draft, statuses, save } = useNetwork('draft', 'statuses', 'save');
  const { now } = useMoment();
  const [editing, setEditing] = useState(false);
  const [putting, setPutting] = useState(false);
  const alone = useMemo(() => [screen.id], [screen.id]);
  const health = useScreenHealth(screen.id);
  const status = statuses.get(screen.id);
  const state = status?.state ?? 'unpaired';
  const zone = site?.timeZone ?? 'UTC';
  const lastSeen = status?.lastSeen ? dateTime(Date.parse(status.lastSeen), zone) : null;
  const troubles = [
    ...darkWords(screen, site?.name ?? '', draft.screens, statuses, lastSeen),
    ...(status?.troubles ?? []),
  ];
  return (
    <div className="mx-auto max-w-6xl px-3 pb-10 sm:px-6">
      <header className="flex flex-wrap items-end gap-x-6 gap-y-2 py-4">
        <div>
          <p className="text-sm text-faint">
            <Link href="/screens" className="text-tide underline underline-offset-2">
              Screens
            </Link>{' '}
            · {site?.name}
          </p>
          <h1 className="text-2xl">{screen.name}</h1>
          <p className="text-faint">
            <span className="mr-1 inline-block align-middle">
              <Lantern state={state} />
            </span>
            {STATE_WORDS[state]} · {screen.width} × {screen.height} · {zoneName(zone)} time · number{' '}
            {numberAtSite(draft.screens, screen)} at its site
          </p>
        </div>
        <p className="ml-auto flex flex-wrap gap-1.5">
          <Button needs="operate" onClick={() => setPutting(true)}>
            Put on now
          </Button>
          <CommandsMenu screens={alone} />
          <Button onClick={() => setEditing(true)}>Settings</Button>
        </p>
      </header>
      {putting && (
        <div className="mb-4 max-w-xl">
          <PutOnForm screens={[screen]} onClose={() => setPutting(false)} />
        </div>
      )}
      {troubles.length > 0 && (
        <section aria-label="Troubles" className="mb-4 border-l-4 border-brick bg-sheet px-3 py-2">
          {troubles.map((text) => (
            <p key={text} className="text-brick">
              {text}
              <Since at={health?.troubles[troubleKind(text)]} zone={zone} />
            </p>
          ))}
        </section>
      )}
      <div className="grid gap-x-10 gap-y-8 lg:grid-cols-[1fr_20rem]">
        <div className="min-w-0 space-y-8">
          <section aria-label="Now">
            <OnNow screen={screen.id} className="mb-3 space-y-1" />
            <ScreenGlimpse screen={screen.id} zone={zone} large />
            <Ahead screen={screen} zone={zone} />
          </section>
          <section aria-label="The last 24 hours">
            <h2 className="mb-2 text-lg">The last 24 hours</h2>
            {health && <StateBand changes={health.states} now={now} zone={zone} />}
            <div className="mt-5">{health && <HealthCharts samples={health.samples} now={now} />}</div>
          </section>
        </div>
        <div className="min-w-0 space-y-8">
          <section aria-label="Its player">
            <h2 className="mb-2 text-lg">Player</h2>
            <PairForm screen={screen} status={status} isBare />
            {health?.player && <PlayerFactsList facts={health.player} zone={zone} />}
            <Outcomes screens={alone} zone={zone} />
          </section>
          <section aria-label="Its display">
            <h2 className="mb-2 text-lg">Display</h2>
            <DisplayFacts screen={screen} told={health?.player ?? undefined} />
          </section>
          <section aria-label="Tags">
            <h2 className="mb-2 text-lg">What its tags bring</h2>
            <TagsBrought screen={screen.id} />
          </section>
          <section aria-label="Its place">
            <h2 className="mb-2 text-lg">Where it hangs</h2>
            {health && <PlacePhoto screen={screen.id} name={screen.name} added={health.photo} zone={zone} />}
          </section>
          <section aria-label="Notes">
            <h2 className="mb-2 text-lg">Notes</h2>
            <SavedInput
              label="Notes"
              of={{ kind: 'screen', id: screen.id, field: 'notes' }}
              value={screen.notes ?? ''}
              rows={4}
              placeholder="How it is mounted, whom to call, where its plug is"
              read={readNotes}
              save={(notes) => save(changed('screen', screen, { notes: notes || undefined })[0] ?? null)}
            />
          </section>
        </div>
      </div>
      <Sheet open={editing} title={`${site?.name ?? ''} · ${screen.name}`} onClose={() => setEditing(false)}>
        <ScreenForm screen={screen} site={screen.site} onDone={() => setEditing(false)} />
      </Sheet>
    </div>
  );
}

/** Since when a trouble stands, where that is known. */
function Since({ at, zone }: { at: number | undefined; zone: string }) {
  if (at === undefined) return null;
  return <span className="text-faint"> Since {dateTime(at, zone)}.</span>;
}

const readNotes = (text: string): Result<string> =>
  text.length > NOTES_AT_MOST ? misread(`Notes have at most ${NOTES_AT_MOST} characters.`) : done(text.trim());

/** Why it shows what it shows, its day, and what comes. */
function Ahead({ screen, zone }: { screen: Screen; zone: string }) {
  const { known, reasons, coming } = useScreenAhead(screen.id);
  const { moment, now } = useMoment();
  return (
    <>
      <h2 className="mt-5 text-lg">Why</h2>
      <p data-testid="why">
        {known
          ? (reasons?.sentence ?? '…')
          : 'It will be included when you next publish. Until then its player has nothing to show.'}
      </p>
      <h2 className="mt-5 mb-2 text-lg">
        {dayName(moment, zone) === dayName(now, zone) ? 'Today' : dayName(moment, zone)}
      </h2>
      <DayBand screen={screen.id} zone={zone} />
      <Coming coming={coming} zone={zone} />
    </>
  );
}
