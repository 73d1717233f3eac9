'use client';

import { COMMANDS, COMMAND_KINDS, socketName } from '@/core/commands';
import { dateTime, megabytes } from '@/interface/kit/words/format';
import type { PlayerFacts } from '@/services/health';

const KIND_WORDS = { image: 'pictures', video: 'videos', sound: 'sound' } as const;

/** What a screen's player reported last about itself and its device. */
export function PlayerFactsList({ facts, zone }: { facts: PlayerFacts; zone: string }) {
  const { hardware, storage, kinds, can } = facts;
  const cannot = COMMAND_KINDS.flatMap((kind) => {
    const { needs, name } = COMMANDS[kind];
    return needs !== undefined && !can.includes(needs) ? [name.toLowerCase()] : [];
  });
  const rows: readonly (readonly [string, string | null])[] = [
    ['Software', facts.software],
    ['Paired', facts.pairedAt && dateTime(Date.parse(facts.pairedAt), zone)],
    ['Last heard', facts.lastSeen && dateTime(Date.parse(facts.lastSeen), zone)],
    ['Plays', kinds ? kinds.map((kind) => KIND_WORDS[kind]).join(', ') : 'pictures, videos, sound'],
    ['Storage', storage && `${megabytes(storage.usedBytes)} of ${megabytes(storage.limitBytes)} used`],
    ['Display', hardware.display === undefined ? null : `switched ${hardware.display}`],
    ['Input', hardware.input === undefined ? null : socketName(hardware.input)],
    ['Volume', hardware.volume === undefined ? null : `${hardware.volume} %`],
    ['Brightness', hardware.brightness === undefined ? null : `${hardware.brightness} %`],
    ['Serial number', hardware.serial ?? null],
    ['Firmware', hardware.firmware ?? null],
    ['Turned', hardware.degrees ? `${hardware.degrees}° clockwise` : null],
    ['Edges', hardware.edges ? `drawn up to ${hardware.edges} % smaller` : null],
    ['Can’t', cannot.join(', ') || null],
  ];
  return (
    <dl className="grid grid-cols-[7rem_1fr] gap-y-1 text-sm">
      {rows.map(
        ([name, value]) =>
          value && (
            <div key={name} className="contents">
              <dt className="text-faint">{name}</dt>
              <dd className="[overflow-wrap:anywhere]">{value}</dd>
            </div>
          ),
      )}
    </dl>
  );
}
