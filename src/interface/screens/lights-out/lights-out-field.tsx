'use client';

import { useMemo, useState } from 'react';
import { formatDate, type When } from '@/core/when';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { lightsOutText, lightsOutTextSchema } from '../hours-text';
import { LightsOutMeaning } from './meaning';
import { EMPTY_WEEK, weekOf, whenOf } from './week';
import { WeekGrid } from './week-grid';

const NONE: readonly When[] = [];

/** When displays are off: in words, or painted into a week. Both say the same, and what it comes to stands below. */
export function LightsOutField({
  screens,
  value,
  hint,
  error,
  onChange,
  onBlur,
}: {
  /** The screens that it is for; none of them for a new one. */
  screens: readonly string[];
  value: string;
  hint: string;
  error: string | undefined;
  onChange: (text: string) => void;
  onBlur: () => void;
}) {
  const context = usePhraseContext();
  const [painting, setPainting] = useState(false);
  const read = useMemo(() => lightsOutTextSchema(context).safeParse(value), [context, value]);
  const list = read.success ? (read.data ?? NONE) : null;
  const today = formatDate(context.today);
  const painted = useMemo(() => list && weekOf(list, today), [list, today]);
  return (
    <div>
      <Field label="Lights out" hint={hint} error={error}>
        <Input
          autoComplete="off"
          invalid={error !== undefined}
          value={value}
          onChange={({ target }) => onChange(target.value)}
          onBlur={onBlur}
        />
      </Field>
      {screens.length > 0 && <LightsOutMeaning screens={screens} text={value} />}
      <Button variant="quiet" className="!px-0" aria-expanded={painting} onClick={() => setPainting(!painting)}>
        {painting ? 'Close the week' : 'Paint the week'}
      </Button>
      {painting && (
        <div className="mt-2">
          {!painted && (
            <p className="mb-2 text-sm text-faint">
              These hours can’t be drawn as a week, because they follow opening hours, dates or minutes. What you paint
              replaces them.
            </p>
          )}
          <WeekGrid
            week={painted?.week ?? EMPTY_WEEK}
            onPaint={(week) => onChange(lightsOutText(whenOf({ week, except: painted?.except ?? [] }, today)))}
          />
          <p className="mt-1 text-xs text-faint">
            Dark is off, amber is on. Drag to switch off; begin on dark to switch on again. With keys: arrows move,
            Space paints, Shift and arrows paint on.
            {painted && painted.except.length > 0 && ' Dates that are left out stay as they are in the words above.'}
          </p>
        </div>
      )}
    </div>
  );
}
