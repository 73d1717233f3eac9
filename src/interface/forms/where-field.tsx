'use client';

import { useMemo, useState } from 'react';
import { ArrowGroup } from '@/interface/kit/controls/arrow-group';
import { plainSelector, pressChip } from '@/interface/kit/screens/chips';
import { Field } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import { unknownTagsText } from '@/interface/kit/screens/unknown-tags';
import type { Plan } from '@/core/plan';
import { WhereBox, namesProblem } from './where-box';

/** Where: tags, sites and screens by name or by chips, with the screens that they select counted and listed as you type. */
export function WhereField({
  plan,
  value,
  error,
  empty = [],
  onChange,
  onBlur,
}: {
  plan: Plan;
  /** A selector, as the plan has it. */
  value: string;
  error?: string | undefined;
  /** Ids of screens that are selected and have nothing to play. */
  empty?: readonly string[];
  onChange: (selector: string) => void;
  onBlur?: () => void;
}) {
  const [list, showList] = useState(false);
  const found = useMemo(() => selectScreens(plan, value), [plan, value]);
  const tags = useMemo(
    () => [...new Set([...plan.sites, ...plan.screens].flatMap((one) => one.tags ?? []))].sort(),
    [plan],
  );
  const sites = useMemo(() => new Map(plan.sites.map((site) => [site.id, site.name])), [plan]);
  const problem = namesProblem(value, plan) ?? error ?? (!found.ok && value.trim() !== '' ? found.message : undefined);
  const unknown = useMemo(() => unknownTagsText(plan, value), [plan, value]);
  const asked = plainSelector(value);
  const nothing = new Set(empty);
  return (
    <div>
      <Field
        label="Where"
        error={problem}
        hint={
          found.ok && (
            <>
              {found.value.length > 0 ? (
                counted(found.value.length, 'screen')
              ) : (
                <span className="text-brick">{unknown ?? 'No screen has these tags or names now'}</span>
              )}
              {found.value.length > 0 && unknown !== null && <span className="text-brick">. {unknown}</span>}
              {nothing.size > 0 && (
                <span className="text-brick">, {nothing.size} of them have nothing to play</span>
              )}{' '}
              {found.value.length > 0 && (
                <button
                  type="button"
                  aria-expanded={list}
                  onClick={() => showList(!list)}
                  className="text-tide underline underline-offset-2"
                >
                  {list ? 'hide' : 'show'}
                </button>
              )}
            </>
          )
        }
      >
        <WhereBox
          plan={plan}
          value={value}
          invalid={problem !== undefined}
          placeholder="Type tags, a site or a screen, e.g. quay and not staff. Type “all” for all screens."
          onChange={onChange}
          {...(onBlur ? { onBlur } : {})}
        />
      </Field>
      <ArrowGroup
        label="Tags"
        of={tags}
        className="mt-1.5 flex flex-wrap gap-1"
        button={(tag, stop) => {
          const [having, without] = [asked?.having.includes(tag) ?? false, asked?.without.includes(tag) ?? false];
          return (
            <button
              key={tag}
              type="button"
              {...stop}
              aria-pressed={without ? 'mixed' : having}
              aria-label={without ? `not ${tag}` : tag}
              onClick={() => onChange(pressChip(value, tag))}
              className={`border px-1.5 text-sm ${having ? 'border-dusk bg-dusk text-on-dusk' : without ? 'border-brick text-brick line-through' : 'border-rule bg-sheet hover:border-ink'}`}
            >
              {tag}
            </button>
          );
        }}
      />
      {list && found.ok && (
        <ul className="mt-2 max-h-40 overflow-y-auto border border-rule bg-sheet p-2 text-sm">
          {[...found.value]
            .sort((a, b) => Number(nothing.has(b.id)) - Number(nothing.has(a.id)))
            .map((screen) => (
              <li key={screen.id} className={nothing.has(screen.id) ? 'text-brick' : ''}>
                {sites.get(screen.site)} · {screen.name}
                {nothing.has(screen.id) && ': nothing to play here'}
              </li>
            ))}
        </ul>
      )}
    </div>
  );
}
