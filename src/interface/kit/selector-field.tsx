'use client';

import { useMemo, useState, type InputHTMLAttributes, type Ref } from 'react';
import { matches, parseSelector, screenTerms, type Plan, type Screen } from '@/core';
import { Field, Input } from './field';
import { counted } from './format';

/** The screens that a selector text selects, or what is wrong with it. */
export function selectScreens(plan: Plan, text: string): { screens: Screen[] } | { error: string } {
  const selector = parseSelector(text);
  if ('error' in selector) return { error: selector.error };
  const tags = new Map(plan.sites.map((site) => [site.id, site.tags ?? []]));
  return { screens: plan.screens.filter((screen) => matches(selector, screenTerms(screen, tags.get(screen.site)))) };
}

/** Where: a selector, with the screens that it selects counted and listed as one types. Known tags are suggested. */
export function SelectorField({
  plan,
  value,
  error,
  ref,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & {
  plan: Plan;
  value: string;
  error?: string | undefined;
  ref?: Ref<HTMLInputElement>;
}) {
  const [list, showList] = useState(false);
  const found = useMemo(() => selectScreens(plan, value), [plan, value]);
  const tags = useMemo(
    () => [...new Set([...plan.sites, ...plan.screens].flatMap((one) => one.tags ?? []))].sort(),
    [plan],
  );
  const sites = useMemo(() => new Map(plan.sites.map((site) => [site.id, site.name])), [plan]);
  const problem = error ?? ('error' in found && value.trim() !== '' ? found.error : undefined);
  return (
    <div>
      <Field
        label="Where"
        error={problem}
        hint={
          'screens' in found && (
            <>
              {counted(found.screens.length, 'screen')}{' '}
              {found.screens.length > 0 && (
                <button
                  type="button"
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
        <Input
          ref={ref}
          invalid={problem !== undefined}
          placeholder="quay and (hall or gangway) and not staff"
          {...rest}
        />
      </Field>
      <p className="mt-1 text-sm text-faint">Tags here: {tags.join(', ') || 'none yet'}</p>
      {list && 'screens' in found && (
        <ul className="mt-2 max-h-40 overflow-y-auto border border-rule bg-sheet p-2 text-sm">
          {found.screens.map((screen) => (
            <li key={screen.id}>
              {sites.get(screen.site)} · {screen.name}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
