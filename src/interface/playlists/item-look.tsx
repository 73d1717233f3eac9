'use client';

import type { ReactNode } from 'react';
import {
  FITS,
  LONGEST_TRANSITION_MS,
  TRANSITIONS,
  readDuration,
  readVolume,
  transitionWords,
  volumeText,
  type Fit,
  type Item,
  type Media,
  type Transition,
} from '@/core/plan';
import { misread, type Result } from '@/core/refusal';
import { describeWhen } from '@/core/when';
import { readingsNote } from '@/interface/forms/other-readings';
import { readSaid } from '@/interface/forms/read-said';
import { SavedInput } from '@/interface/forms/saved-input';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Select } from '@/interface/kit/controls/field';
import { FIT_WORDS } from '@/interface/kit/words/media-words';

/** What an item says of its files' turns besides how long they last. */
export type Look = Pick<Item, 'transition' | 'fit' | 'volume' | 'when'>;

const TRANSITION_WORDS: Record<Transition['kind'], string> = {
  cut: 'cut',
  fade: 'fade',
  slide: 'slide',
  wipe: 'wipe',
};
const USUAL_MS = 600;

/** What differs from the usual, in words: "fade 0.6 s", "filling", "sound 80 %". */
export function lookWords({ transition, fit, volume, when }: Look): string[] {
  return [
    transition && transition.kind !== 'cut' ? transitionWords(transition) : '',
    fit !== undefined && fit !== 'whole' ? FIT_WORDS[fit] : '',
    volume ? `sound ${volumeText(volume)} %` : '',
    when ? describeWhen(when) : '',
  ].filter((words) => words !== '');
}

/** What all have alike; undefined where they differ. */
const common = <T,>(values: readonly T[]): T | undefined =>
  values.every((one) => one === values[0]) ? values[0] : undefined;

const MIXED = 'mixed';

/**
 * How one item comes in, stands, sounds and when it is there; or several at once, where a field that differs says so and is left alone until it
 * is written.
 */
export function ItemLook({
  playlist,
  names,
  items,
  films,
  onChange,
}: {
  /** The playlist's id. */
  playlist: string;
  /** What the fields are of, for those who hear them. */
  names: string;
  items: readonly Item[];
  /** Whether any of it has sound. */
  films: readonly (Media | undefined)[];
  onChange: (look: Look) => Promise<Result<unknown>>;
}) {
  const context = usePhraseContext();
  const of = (field: string) => ({ kind: 'playlist' as const, id: playlist, field: `${names} ${field}` });
  const kind = common(items.map(({ transition }) => transition?.kind ?? 'cut'));
  const ms = common(items.map(({ transition }) => transition?.ms));
  const fit = common(items.map((item) => item.fit ?? 'whole'));
  const volume = common(items.map((item) => item.volume ?? 0));
  const saidWhen = common(items.map(({ when }) => (when ? describeWhen(when) : '')));
  const [first] = items;
  const hasLook = items.every((item) => item.playlist === undefined);
  const isHeard = films.some((file) => file?.audio === true);
  return (
    <>
      {hasLook && (
        <>
          <Labelled name="Transition">
            <span className="flex items-center gap-1.5">
              <Select
                aria-label={`Transition of ${names}`}
                value={kind ?? MIXED}
                className="!w-24"
                onChange={({ target }) =>
                  void onChange({
                    transition:
                      target.value === 'cut' || target.value === MIXED
                        ? undefined
                        : { kind: target.value as Transition['kind'], ms: ms ?? USUAL_MS },
                  })
                }
              >
                {kind === undefined && <option value={MIXED}>{MIXED}</option>}
                {TRANSITIONS.map((one) => (
                  <option key={one} value={one}>
                    {TRANSITION_WORDS[one]}
                  </option>
                ))}
              </Select>
              {kind !== undefined && kind !== 'cut' && (
                <SavedInput
                  label={`Seconds of the transition of ${names}`}
                  of={of('transition')}
                  value={ms === undefined ? '' : String(ms / 1000)}
                  placeholder={MIXED}
                  inputMode="decimal"
                  read={readTransition}
                  save={(length) => onChange({ transition: { kind, ms: length } })}
                  width="w-20"
                  className="text-right font-code"
                >
                  s
                </SavedInput>
              )}
            </span>
          </Labelled>
          <Labelled name="Fit">
            <Select
              aria-label={`Fit of ${names}`}
              value={fit ?? MIXED}
              className="!w-44"
              onChange={({ target }) =>
                void onChange({
                  fit: target.value === 'whole' || target.value === MIXED ? undefined : (target.value as Fit),
                })
              }
            >
              {fit === undefined && <option value={MIXED}>{MIXED}</option>}
              {FITS.map((one) => (
                <option key={one} value={one}>
                  {FIT_WORDS[one]}
                </option>
              ))}
            </Select>
          </Labelled>
          {isHeard && (
            <Labelled name="Volume">
              <SavedInput
                label={`Volume of ${names}`}
                of={of('volume')}
                value={volumeText(volume)}
                placeholder={volume === undefined ? MIXED : 'silent'}
                inputMode="decimal"
                read={readVolume}
                save={(value) => onChange({ volume: value === 0 ? undefined : value })}
                width="w-28"
                className="!w-20 text-right font-code"
              >
                %
              </SavedInput>
            </Labelled>
          )}
        </>
      )}
      <Labelled name="Only when" wide>
        <SavedInput
          label={`When ${names} plays`}
          of={of('when')}
          value={saidWhen ?? ''}
          placeholder={saidWhen === undefined ? MIXED : 'always; or weekdays 07:00–09:00, in December …'}
          read={(text) => readSaid(text, context, first?.when)}
          note={(text) => readingsNote(text, context)}
          save={(when) => onChange({ when })}
          width="min-w-40 flex-1"
        />
      </Labelled>
    </>
  );
}

function readTransition(text: string): Result<number> {
  const read = readDuration(text);
  if (!read.ok || read.value <= LONGEST_TRANSITION_MS) return read;
  return misread('A transition lasts at most 5 seconds.');
}

function Labelled({ name, wide = false, children }: { name: string; wide?: boolean; children: ReactNode }) {
  return (
    <span className={`flex items-start gap-2 text-sm ${wide ? 'min-w-60 flex-1' : ''}`}>
      <span aria-hidden className="pt-1.5 whitespace-nowrap text-faint">
        {name}
      </span>
      {children}
    </span>
  );
}
