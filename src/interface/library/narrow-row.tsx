'use client';

import { useFacets, type LibraryFilters } from '@/interface/data/queries';

const KINDS = [
  ['image', 'Pictures'],
  ['video', 'Videos'],
  ['sound', 'Sounds'],
] as const;
const STATES = [
  ['audible', 'With sound'],
  ['unused', 'Not used'],
  ['ending', 'End within 7 days'],
  ['small', 'Too small for its screens'],
  ['archived', 'Archived'],
] as const;

/** How the visible files can be narrowed, with how many files each choice would leave. */
export function NarrowRow({
  search,
  filters,
  onFilters,
  onTag,
}: {
  search: string;
  filters: LibraryFilters;
  onFilters: (filters: LibraryFilters) => void;
  onTag: (tag: string) => void;
}) {
  const facets = useFacets(search, filters);
  if (!facets) return <div className="mb-3 h-7" />;
  const words = new Set(search.toLowerCase().split(/\s+/));
  return (
    <div role="group" aria-label="Narrow down" className="mb-4 flex flex-wrap items-center gap-x-1 gap-y-1 text-sm">
      {KINDS.map(([kind, name]) => {
        const { kind: chosen, ...others } = filters;
        return (
          <Toggle
            key={kind}
            name={name}
            count={facets[kind]}
            pressed={chosen === kind}
            onPress={() => onFilters(chosen === kind ? others : { ...others, kind })}
          />
        );
      })}
      {STATES.map(([state, name]) => {
        const { [state]: chosen, ...others } = filters;
        return (
          <Toggle
            key={state}
            name={name}
            count={facets[state]}
            pressed={chosen === true}
            onPress={() => onFilters(chosen ? others : { ...others, [state]: true })}
          />
        );
      })}
      <span aria-hidden className="mx-2 h-4 border-l border-rule max-sm:hidden" />
      {facets.tags
        .filter(({ tag }) => !words.has(tag))
        .map(({ tag, count }) => (
          <button
            key={tag}
            type="button"
            onClick={() => onTag(tag)}
            aria-label={`Only with the tag ${tag}: ${count}`}
            className="px-2 py-1 text-tide hover:underline"
          >
            {tag} <Count of={count} />
          </button>
        ))}
    </div>
  );
}

function Toggle({
  name,
  count,
  pressed,
  onPress,
}: {
  name: string;
  count: number;
  pressed: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      disabled={count === 0 && !pressed}
      onClick={onPress}
      className={`border px-2.5 py-0.5 disabled:opacity-50 ${pressed ? 'border-ink bg-ink text-paper' : 'border-rule bg-sheet enabled:hover:border-ink'}`}
    >
      {name} <Count of={count} />
    </button>
  );
}

const Count = ({ of }: { of: number }) => <span className="font-code text-[11px] opacity-70">{of}</span>;
