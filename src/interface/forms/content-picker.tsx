'use client';

import { Combobox, ComboboxButton, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { ChevronDown, X } from 'lucide-react';
import { useDeferredValue, useEffect, useRef, useState, type ReactNode } from 'react';
import { knownContent, type Media, type Plan } from '@/core';
import { thumbnailOf, useNetwork } from '@/interface/data/provider';
import { useLibrary } from '@/interface/data/queries';
import { contentOf } from '@/interface/kit/content';
import { BOX } from '@/interface/kit/field';
import { duration } from '@/interface/kit/format';
import { Thumb } from '@/interface/kit/thumb';

/** So many playlists are offered at once, besides a page of files. */
const PLAYLISTS_OFFERED = 20;

/**
 * Chooses one playlist or one file, found as one types; a plain file needs no playlist around it. `value` is as `contentValue`
 * writes it; `none` says what an empty one means.
 */
export function ContentPicker({
  plan,
  value,
  none,
  invalid,
  onChange,
  ...rest
}: {
  plan: Plan;
  value: string;
  none: string;
  invalid?: boolean;
  onChange: (value: string) => void;
  onBlur?: () => void;
  'aria-label'?: string;
}) {
  const { hold } = useNetwork('hold');
  const [typed, setTyped] = useState<string | null>(null);
  /** The files that are offered: one that is chosen must be in the page's plan. */
  const files = useRef<readonly Media[]>([]);
  const input = useRef<HTMLInputElement>(null);
  const chosen = contentOf(value);
  const what = chosen && knownContent(chosen);
  const name = what
    ? ((what.kind === 'media' ? plan.media : plan.playlists).find(({ id }) => id === what.id)?.name ?? what.id)
    : '';
  const search = useDeferredValue(typed?.trim() ?? '');
  return (
    <Combobox
      immediate
      value={value}
      onChange={(next: string | null) => {
        setTyped(null);
        if (next === null) return;
        hold(files.current.filter(({ id }) => next === `media:${id}`));
        onChange(next);
      }}
      onClose={() => setTyped(null)}
    >
      <div className="relative">
        <ComboboxInput
          ref={input}
          className={`${BOX} pr-14`}
          autoComplete="off"
          aria-invalid={invalid || undefined}
          placeholder={none}
          displayValue={() => name}
          onFocus={(event) => event.currentTarget.select()}
          onChange={(event) => setTyped(event.target.value)}
          {...rest}
        />
        {value !== '' && (
          <button
            type="button"
            aria-label={`Take "${name}" out`}
            className="absolute inset-y-0 right-7 w-6 px-1 text-faint hover:text-ink"
            onClick={() => {
              onChange('');
              // This button goes: forms save when a field is left, and something must be left.
              input.current?.focus();
            }}
          >
            <X size={14} aria-hidden />
          </button>
        )}
        <ComboboxButton aria-label="Open the list" className="absolute inset-y-0 right-0 px-2 text-faint">
          <ChevronDown size={16} aria-hidden />
        </ComboboxButton>
      </div>
      <ComboboxOptions
        anchor={{ to: 'bottom start', gap: 4 }}
        className="z-30 [--anchor-max-height:22rem] w-(--input-width) min-w-72 overflow-y-auto border border-rule bg-sheet py-1 shadow-lg empty:hidden"
      >
        <Choices plan={plan} search={search} onFiles={(list) => void (files.current = list)} />
      </ComboboxOptions>
    </Combobox>
  );
}

/** What there is to choose: playlists, then files from the library. */
function Choices({
  plan,
  search,
  onFiles,
}: {
  plan: Plan;
  search: string;
  onFiles: (files: readonly Media[]) => void;
}) {
  const { files, total = 0, failed } = useLibrary(search);
  useEffect(() => {
    onFiles(files ?? []);
  });
  const text = search.toLowerCase();
  const playlists = plan.playlists
    .filter((one) => one.name.toLowerCase().includes(text))
    .sort((a, b) => a.name.localeCompare(b.name));
  const offered = playlists.slice(0, PLAYLISTS_OFFERED);
  return (
    <>
      {offered.length > 0 && <Heading>Playlists</Heading>}
      {offered.map(({ id, name }) => (
        <Choice key={id} value={`playlist:${id}`}>
          <span className="truncate">{name}</span>
        </Choice>
      ))}
      {playlists.length > offered.length && <Rest count={playlists.length - offered.length} />}
      {files && files.length > 0 && <Heading>Media</Heading>}
      {files?.map((file) => (
        <Choice key={file.id} value={`media:${file.id}`}>
          <Thumb src={thumbnailOf(file)} alt="" className="h-7 w-10 shrink-0" />
          <span className="truncate">{file.name}</span>
          <span className="ml-auto shrink-0 pl-3 font-code text-[11px] text-faint">
            {file.durationMs === undefined ? `${file.width}×${file.height}` : duration(file.durationMs)}
          </span>
        </Choice>
      ))}
      {files && total > files.length && <Rest count={total - files.length} />}
      {failed && <p className="px-3 py-1.5 text-sm text-brick">The library does not answer: try again in a moment.</p>}
      {files?.length === 0 && playlists.length === 0 && (
        <p className="px-3 py-1.5 text-sm text-faint">
          {text === '' ? 'There are no playlists and no media yet.' : 'No playlist and no file is called so.'}
        </p>
      )}
    </>
  );
}

const Heading = ({ children }: { children: string }) => (
  <p aria-hidden className="px-3 pt-1.5 pb-0.5 text-xs text-faint">
    {children}
  </p>
);

const Rest = ({ count }: { count: number }) => (
  <p className="px-3 py-1 text-xs text-faint">and {count} more: write a part of the name</p>
);

function Choice({ value, children }: { value: string; children: ReactNode }) {
  return (
    <ComboboxOption
      value={value}
      data-choice={value}
      className="flex cursor-default items-center gap-2 px-3 py-1.5 text-sm data-focus:bg-well data-selected:font-semibold"
    >
      {children}
    </ComboboxOption>
  );
}
