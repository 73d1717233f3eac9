'use client';

import { useEffect, useState } from 'react';
import { answered } from '@/interface/data/answered';
import { holidayChoicesAction, holidaysAction } from '@/web/actions';
import { useNetwork } from '@/interface/data/provider';
import { DraftOffer, useKept } from '@/interface/forms/use-draft';
import { Button } from '@/interface/kit/controls/button';
import { Field, Select } from '@/interface/kit/controls/field';
import type { Choice } from '@/services/calendars';

/** A calendar of the public holidays of a country or region, that keeps itself current. */
export function Holidays() {
  const { edit, notify } = useNetwork('edit', 'notify');
  const [countries, setCountries] = useState<readonly Choice[]>([]);
  const [regions, setRegions] = useState<readonly Choice[]>([]);
  const { values, set, clear, draft } = useKept('holidays', { country: '', region: '' });
  const { country, region } = values;
  useEffect(() => {
    void answered(holidayChoicesAction()).then((result) => result.ok && setCountries(result.value));
  }, []);
  useEffect(() => {
    let here = true;
    setRegions([]);
    if (country !== '')
      void answered(holidayChoicesAction(country)).then((result) => here && result.ok && setRegions(result.value));
    return () => {
      here = false;
    };
  }, [country]);
  const nameOf = (list: readonly Choice[], code: string) => list.find((one) => one.code === code)?.name ?? code;
  const add = async () => {
    const name = `Public holidays, ${region === '' ? nameOf(countries, country) : nameOf(regions, region)}`;
    const found = await answered(holidaysAction(country, region === '' ? undefined : region));
    if (!found.ok) return notify(found.message, true);
    const holidays = { country, ...(region === '' ? {} : { region }) };
    const result = await edit(
      [{ kind: 'calendar', add: { name, dates: found.value.map(({ date }) => date), holidays } }],
      `“${name}” is added. Its dates stay up to date by themselves.`,
    );
    if (result.ok) clear();
  };
  return (
    <section className="space-y-3 border-t border-rule pt-4" aria-label="Public holidays">
      <h3 className="text-lg">Public holidays</h3>
      <DraftOffer draft={draft} />
      <div className="flex gap-4">
        <Field label="Country" className="flex-1">
          <Select value={country} onChange={(event) => set({ country: event.target.value, region: '' })}>
            <option value="">Choose a country</option>
            {countries.map(({ code, name }) => (
              <option key={code} value={code}>
                {name}
              </option>
            ))}
          </Select>
        </Field>
        {regions.length > 0 && (
          <Field label="Region" className="flex-1">
            <Select value={region} onChange={(event) => set({ region: event.target.value })}>
              <option value="">All of the country</option>
              {regions.map(({ code, name }) => (
                <option key={code} value={code}>
                  {name}
                </option>
              ))}
            </Select>
          </Field>
        )}
      </div>
      <Button needs="plan" disabled={country === ''} onClick={() => void add()}>
        Add public holidays
      </Button>
      <p className="text-sm text-faint">Dates from date-holidays by Tommy Bajer and contributors, CC BY 3.0.</p>
    </section>
  );
}
