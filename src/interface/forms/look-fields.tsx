import type { ComponentProps, ReactNode } from 'react';
import { FITS, LONGEST_TRANSITION_MS, TRANSITIONS, readDuration, type Fit, type Transition } from '@/core/plan';
import { misread, type Result } from '@/core/refusal';
import { Select } from '@/interface/kit/controls/field';
import { FIT_WORDS } from '@/interface/kit/words/media-words';
import { SavedInput } from './saved-input';

/** Fields of how something looks on the glass: of an item, of several at once, or of a zone. */

/** Said where several differ. */
export const MIXED = 'mixed';

const TRANSITION_WORDS: Record<Transition['kind'], string> = {
  cut: 'cut',
  fade: 'fade',
  slide: 'slide',
  wipe: 'wipe',
};
const USUAL_MS = 600;

/** How something gives way to the next, and how long that takes. `kind` and `ms` are undefined where several differ. */
export function TransitionField({
  names,
  of,
  kind,
  ms,
  onChange,
}: {
  /** What the field is of, for those who hear it. */
  names: string;
  of: ComponentProps<typeof SavedInput>['of'];
  kind: Transition['kind'] | undefined;
  ms: number | undefined;
  onChange: (transition: Transition | undefined) => Promise<Result<unknown>>;
}) {
  return (
    <Labelled name="Transition">
      <span className="flex items-center gap-1.5">
        <Select
          aria-label={`Transition of ${names}`}
          value={kind ?? MIXED}
          className="!w-24"
          onChange={({ target }) =>
            void onChange(
              target.value === 'cut' || target.value === MIXED
                ? undefined
                : { kind: target.value as Transition['kind'], ms: ms ?? USUAL_MS },
            )
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
            of={of}
            value={ms === undefined ? '' : String(ms / 1000)}
            placeholder={MIXED}
            inputMode="decimal"
            read={readTransition}
            save={(length) => onChange({ kind, ms: length })}
            width="w-20"
            className="text-right font-code"
          >
            s
          </SavedInput>
        )}
      </span>
    </Labelled>
  );
}

/** How a picture of another shape is placed; undefined where several differ. */
export function FitField({
  names,
  fit,
  onChange,
}: {
  names: string;
  fit: Fit | undefined;
  onChange: (fit: Fit | undefined) => void;
}) {
  return (
    <Labelled name="Fit">
      <Select
        aria-label={`Fit of ${names}`}
        value={fit ?? MIXED}
        className="!w-44"
        onChange={({ target }) =>
          onChange(target.value === 'whole' || target.value === MIXED ? undefined : (target.value as Fit))
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
  );
}

function readTransition(text: string): Result<number> {
  const read = readDuration(text);
  if (!read.ok || read.value <= LONGEST_TRANSITION_MS) return read;
  return misread('A transition lasts at most 5 seconds.');
}

/** A field with its name before it. */
export function Labelled({ name, wide = false, children }: { name: string; wide?: boolean; children: ReactNode }) {
  return (
    <span className={`flex items-start gap-2 text-sm ${wide ? 'min-w-60 flex-1' : ''}`}>
      <span aria-hidden className="pt-1.5 whitespace-nowrap text-faint">
        {name}
      </span>
      {children}
    </span>
  );
}
