'use client';

import { X } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { answered } from '@/interface/data/answered';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch, useSearches } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { Input } from '@/interface/kit/controls/field';
import { removeSearchAction, saveSearchAction } from '@/web/actions';

/** What one asked for is written at once. */
const focused = (input: HTMLInputElement | null) => input?.focus();

/** Searches by their names, for everybody of the network; and what is looked for now, to be kept among them. `query` is empty for nothing. */
export function SavedSearches({ query, onGo }: { query: string; onGo: (query: string) => void }) {
  const { notify } = useNetwork('notify');
  const searches = useSearches() ?? [];
  const refetch = useRefetch('library');
  const [naming, setNaming] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const known = searches.some((one) => one.query === query);
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    const result = await answered(saveSearchAction({ name: naming, query }));
    if (!result.ok) return setWrong(result.message);
    setNaming(null);
    refetch();
  };
  const remove = async (id: string, name: string) => {
    const result = await answered(removeSearchAction(id));
    notify(result.ok ? `The search “${name}” is deleted.` : result.message, !result.ok);
    refetch();
  };
  if (searches.length === 0 && query === '') return null;
  return (
    <div role="group" aria-label="Saved searches" className="mb-3 flex flex-wrap items-center gap-x-2 gap-y-1 text-sm">
      {searches.map((one) => (
        <span key={one.id} className="flex items-center border border-rule bg-sheet">
          <button
            type="button"
            aria-pressed={one.query === query}
            onClick={() => onGo(one.query)}
            className={`px-2.5 py-1 hover:underline ${one.query === query ? 'font-semibold' : 'text-tide'}`}
          >
            {one.name}
          </button>
          {one.query === query && (
            <button
              type="button"
              aria-label={`Delete the search ${one.name}`}
              onClick={() => void remove(one.id, one.name)}
              className="px-1.5 py-1 text-faint hover:text-brick"
            >
              <X size={14} aria-hidden />
            </button>
          )}
        </span>
      ))}
      {query !== '' && !known && naming === null && (
        <Button needs="library" variant="quiet" onClick={() => setNaming('')}>
          Save this search
        </Button>
      )}
      {naming !== null && (
        <form noValidate onSubmit={(event) => void keep(event)} className="flex flex-wrap items-center gap-2">
          <span className="w-52">
            <Input
              ref={focused}
              aria-label="Name of this search"
              placeholder="Name"
              autoComplete="off"
              value={naming}
              invalid={wrong !== null}
              onChange={({ target }) => {
                setNaming(target.value);
                setWrong(null);
              }}
              onKeyDown={({ key }) => key === 'Escape' && setNaming(null)}
            />
          </span>
          <Button type="submit">Save</Button>
          {wrong && (
            <span role="alert" className="text-brick">
              {wrong}
            </span>
          )}
        </form>
      )}
    </div>
  );
}
