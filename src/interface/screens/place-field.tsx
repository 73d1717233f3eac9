'use client';

import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useEffect, useState } from 'react';
import { useController, type Control, type FieldValues, type Path } from 'react-hook-form';
import { answered } from '@/interface/data/answered';
import { BOX, Field } from '@/interface/kit/controls/field';
import { useListText } from '@/interface/forms/use-list-text';
import { placeKey } from '@/interface/kit/controls/place-key';
import type { Town } from '@/services/towns';
import { findTownsAction } from '@/web/actions';

/** So long nothing is typed before towns are asked for, in milliseconds. */
const PAUSE_MS = 150;
const PLACES_OF_DEGREES = 4;

const isTown = (text: string) => /^\p{L}/u.test(text.trim());

/** Where a site stands: by the name of a town near it, or in degrees. The form's value is the degrees. */
export function PlaceField<V extends FieldValues, O>({
  control,
  name,
}: {
  control: Control<V, unknown, O>;
  name: Path<V>;
}) {
  const { field, fieldState } = useController({ control, name });
  const text = field.value as string;
  const [towns, setTowns] = useState<readonly Town[]>([]);
  const [found, setFound] = useState<string | null>(null);
  const [lost, setLost] = useState<string | null>(null);
  const [typing, setTyping] = useState(false);
  const input = useListText(text, field.onChange);
  useEffect(() => {
    if (!typing || !isTown(text)) return setTowns([]);
    let here = true;
    const timer = setTimeout(() => {
      void answered(findTownsAction(text)).then((result) => {
        if (!here) return;
        setTowns(result.ok ? result.value : []);
        setLost(result.ok ? null : result.message);
      });
    }, PAUSE_MS);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [text, typing]);
  const error = isTown(text) && typing ? (lost ?? undefined) : fieldState.error?.message;
  return (
    <Field label="Place" hint={found ?? 'A town, found as you type; or degrees: 62.1, 5.4'} error={error}>
      <Combobox<Town | null>
        value={null}
        onChange={(town) => {
          if (!town) return;
          const { latitude, longitude } = town;
          field.onChange([latitude, longitude].map((one) => Number(one.toFixed(PLACES_OF_DEGREES))).join(', '));
          setFound(`${town.name}, ${town.country}`);
          setTyping(false);
        }}
      >
        <ComboboxInput
          ref={(element: HTMLInputElement | null) => {
            input.current = element;
            field.ref(element);
          }}
          autoComplete="off"
          aria-invalid={error !== undefined || undefined}
          className={BOX}
          defaultValue={text}
          displayValue={() => text}
          onChange={(event) => {
            setTyping(true);
            setFound(null);
            field.onChange(event.target.value);
          }}
          onBlur={() => {
            setTyping(false);
            field.onBlur();
          }}
        />
        <ComboboxOptions
          modal={false}
          anchor={{ to: 'bottom start', gap: 4 }}
          className="z-50 w-(--input-width) border border-rule bg-sheet py-1 shadow-lg empty:hidden"
        >
          {towns.map((town, i) => (
            <ComboboxOption
              key={placeKey(i, `${town.latitude} ${town.longitude}`)}
              value={town}
              className="flex cursor-default items-baseline justify-between gap-4 px-3 py-1 text-sm data-focus:bg-well"
            >
              {town.name}, {town.country}
              <span className="font-code text-[11px] text-faint">
                {town.latitude.toFixed(1)}, {town.longitude.toFixed(1)}
              </span>
            </ComboboxOption>
          ))}
          {towns.length > 0 && <p className="px-3 pt-1 text-xs text-faint">Towns: GeoNames, CC BY 4.0</p>}
        </ComboboxOptions>
      </Combobox>
    </Field>
  );
}
