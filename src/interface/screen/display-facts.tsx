'use client';

import Link from 'next/link';
import { useMemo } from 'react';
import { darkHours } from '@/core/forecast';
import { DAY, HOUR } from '@/core/instant';
import type { Screen } from '@/core/plan';
import { CONTROL_WORDS, PLAYED_WORDS } from '@/core/plan';
import { codecName, corrections, energyOf, type Told } from '@/core/profiles';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { sizeText } from '@/interface/profiles/profile-text';

const WEEK = 7 * DAY;

/** What a screen's display can do by its profile, where its player says otherwise, and what its hours come to in a week. */
export function DisplayFacts({ screen, told }: { screen: Screen; told: Told | undefined }) {
  const { draft } = useNetwork('draft');
  const { now } = useMoment();
  const profile = draft.profiles.find(({ id }) => id === screen.profile);
  const hour = Math.floor(now / HOUR) * HOUR;
  const offMs = useMemo(
    () => darkHours(draft, [screen.id], screen.lightsOut ?? [], hour, hour + WEEK)[0]?.darkMs ?? 0,
    [draft, screen, hour],
  );
  const { onMs, usedKwh, savedKwh } = energyOf(profile, WEEK, offMs);
  const isOffAllowed = !profile?.lacks?.includes('power');
  const rows: readonly (readonly [string, string | undefined])[] = [
    ['Plays', profile?.plays?.map((kind) => PLAYED_WORDS[kind]).join(', ')],
    ['Codecs', profile?.codecs?.map(codecName).join(', ')],
    ['Up to', sizeText(profile?.most)],
    ['Loudspeakers', profile?.sound === undefined ? undefined : profile.sound ? 'yes' : 'no'],
    ['Videos at once', profile?.layers === undefined ? undefined : String(profile.layers)],
    ['Inputs', profile?.inputs?.map(({ name }) => name).join(', ')],
    ['Not from afar', profile?.lacks?.map((one) => CONTROL_WORDS[one]).join(', ')],
    ['On', `${Math.round(onMs / HOUR)} of 168 h in the next 7 days`],
    ['Uses', usedKwh === null ? undefined : `about ${kwh(usedKwh)} in that time`],
    ['Saves', savedKwh ? `${kwh(savedKwh)} by lights-out` : undefined],
  ];
  return (
    <>
      <p className="mb-1">
        {profile ? (
          <Link
            href={`/screens/profiles?open=${encodeURIComponent(profile.id)}`}
            className="text-tide underline underline-offset-2"
          >
            {profile.name}
          </Link>
        ) : (
          <span className="text-faint">
            Its profile isn’t known. Choose one in its settings, and you are told what it can’t play.
          </span>
        )}
      </p>
      <dl className="grid grid-cols-[7rem_1fr] gap-y-1 text-sm">
        {rows.map(
          ([name, value]) =>
            value && (
              <div key={name} className="contents">
                <dt className="text-faint">{name}</dt>
                <dd>{value}</dd>
              </div>
            ),
        )}
      </dl>
      {!isOffAllowed && offMs > 0 && (
        <p className="mt-1 text-sm text-faint">In lights-out it shows black, since it can’t be switched off.</p>
      )}
      {corrections(profile, told).map((sentence) => (
        <p key={sentence} className="mt-1 border-l-2 border-dusk pl-2 text-sm">
          {sentence}
        </p>
      ))}
    </>
  );
}

const kwh = (value: number) => `${value < 10 ? value.toFixed(1) : Math.round(value)} kWh`;
