'use client';

import { useMemo, useState, type InputHTMLAttributes, type Ref } from 'react';
import { done, parseSelector, screensMatching, type Plan, type Result, type Screen } from '@/core';
import { ArrowGroup } from './arrow-group';
import { plainSelector, pressChip } from './chips';
import { Field, Input } from './field';
import { counted } from './format';

/** The screens that a selector text selects, or what is wrong with it. */
export function selectScreens(plan: Plan, text: string): Result<Screen[]> {
  const selector = parseSelector(text);
  return selector.ok ? done(screensMatching(plan, selector.value)) : selector;
}

/** Where: a selector as text or by chips, with the screens that it selects counted and listed as one types. */
export function SelectorField({
  plan,
  value,
  error,
  onPress,
  empty = [],
  ref,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & {
  plan: Plan;
  value: string;
  error?: string | undefined;
  /** A chip was pressed: the text that it makes. */
  onPress: (text: string) => void;
  /** Ids of screens that are selected and have nothing to play. */
  empty?: readonly string[];
  ref?: Ref<HTMLInputElement>;
}) {
  const [list, showList] = useState(false);
  const found = useMemo(() => selectScreens(plan, value), [plan, value]);
  const tags = useMemo(
    () => [...new Set([...plan.sites, ...plan.screens].flatMap((one) => one.tags ?? []))].sort(),
    [plan],
  );
  const sites = useMemo(() => new Map(plan.sites.map((site) => [site.id, site.name])), [plan]);
  const problem = error ?? (!found.ok && value.trim() !== '' ? found.message : undefined);
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
              {counted(found.value.length, 'screen')}
              {nothing.size > 0 && (
                <span className="text-brick">, {nothing.size} of them with nothing to play</span>
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
        <Input
          ref={ref}
          invalid={problem !== undefined}
          placeholder="quay and (hall or gangway) and not staff"
          {...rest}
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
              onClick={() => onPress(pressChip(value, tag))}
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
