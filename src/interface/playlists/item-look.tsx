'use client';

import { readVolume, transitionWords, volumeText, type Item, type Media } from '@/core/plan';
import type { Result } from '@/core/refusal';
import { describeWhen } from '@/core/when';
import { FitField, Labelled, MIXED, TransitionField } from '@/interface/forms/look-fields';
import { readingsNote } from '@/interface/forms/other-readings';
import { readSaid } from '@/interface/forms/read-said';
import { SavedInput } from '@/interface/forms/saved-input';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { FIT_WORDS } from '@/interface/kit/words/media-words';

/** What an item says of its files' turns besides how long they last. */
export type Look = Pick<Item, 'transition' | 'fit' | 'volume' | 'when'>;

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
          <TransitionField
            names={names}
            of={of('transition')}
            kind={kind}
            ms={ms}
            onChange={(transition) => onChange({ transition })}
          />
          <FitField names={names} fit={fit} onChange={(next) => void onChange({ fit: next })} />
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
