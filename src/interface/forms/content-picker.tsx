'use client';

import { Combobox, ComboboxButton, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { ChevronDown, X } from 'lucide-react';
import { useDeferredValue, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { loopLength } from '@/core/forecast';
import { CONTENTS, knownContent, type Media, type Plan, type Playlist } from '@/core/plan';
import { searchable } from '@/core/text';
import { thumbnailOf, useFromNetwork, useNetwork } from '@/interface/data/provider';
import { useLibrary } from '@/interface/data/queries';
import { contentObject, contentOf, firstMedia } from '@/interface/kit/content/content';
import { BOX } from '@/interface/kit/controls/field';
import { duration } from '@/interface/kit/words/format';
import { MEDIA_WORDS } from '@/interface/kit/words/media-words';
import { placeKey } from '@/interface/kit/controls/place-key';
import { browserShelf } from '@/interface/kit/page/shelf';
import { Thumb } from '@/interface/kit/content/thumb';
import { keepRecent, recentOf } from './recent';

/** So many playlists are offered at once, besides a page of files. */
const PLAYLISTS_OFFERED = 20;

/**
 * Chooses one playlist or one file, which it finds as you type; a plain file needs no playlist around it. `value` is as `contentValue`
 * writes it; `none` says what an empty one means.
 */
export function ContentPicker({
  plan,
  value,
  none,
  invalid,
  only,
  without,
  notIn,
  onChange,
  ...rest
}: {
  plan: Plan;
  value: string;
  none: string;
  invalid?: boolean;
  /** Playlists alone are offered, or files. */
  only?: 'playlist' | 'media';
  /** What is not offered besides: a zone shows no layout. */
  notIn?: 'zone';
  /** A playlist that is not offered, by its id. */
  without?: string;
  onChange: (value: string) => void;
  onBlur?: () => void;
  'aria-label'?: string;
}) {
  const { hold } = useNetwork('hold');
  const me = useFromNetwork((network) => network.view.me);
  const [typed, setTyped] = useState<string | null>(null);
  const offered = useRef(NOTHING_YET);
  /** Enter was pressed before the search had an answer: the first answer is chosen, unless more is typed. */
  const eager = useRef(false);
  const input = useRef<HTMLInputElement>(null);
  const chosen = contentOf(value);
  const name = chosen ? (contentObject(plan, chosen)?.name ?? knownContent(chosen).id) : '';
  const written = typed?.trim() ?? '';
  const search = useDeferredValue(written);
  const choose = (next: string) => {
    setTyped(null);
    // One that is chosen must be in the page's plan.
    hold(offered.current.files.filter(({ id }) => next === `media:${id}`));
    keepRecent(browserShelf(), me, next);
    onChange(next);
  };
  return (
    <Combobox
      immediate
      value={value}
      onChange={(next: string | null) => {
        if (next === null) setTyped(null);
        else choose(next);
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
          onChange={(event) => {
            eager.current = false;
            setTyped(event.target.value);
          }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || typed === null || !offered.current.isBehind) return;
            event.preventDefault();
            eager.current = true;
          }}
          {...rest}
        />
        {value !== '' && (
          <button
            type="button"
            aria-label={`Remove “${name}”`}
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
        modal={false}
        anchor={{ to: 'bottom start', gap: 4 }}
        className="z-30 [--anchor-max-height:22rem] w-(--input-width) min-w-72 overflow-y-auto border border-rule bg-sheet py-1 shadow-lg empty:hidden"
      >
        <Choices
          plan={plan}
          search={search}
          isBehind={search !== written}
          me={me}
          only={only}
          without={without}
          notIn={notIn}
          onOffer={(now) => {
            offered.current = now;
            if (!eager.current || now.isBehind) return;
            eager.current = false;
            if (now.first !== undefined) choose(now.first);
          }}
        />
      </ComboboxOptions>
    </Combobox>
  );
}

interface Offered {
  readonly files: readonly Media[];
  /** The value of the first one. */
  readonly first: string | undefined;
  /** Whether what is written may still be found. */
  readonly isBehind: boolean;
}

const NOTHING_YET: Offered = { files: [], first: undefined, isBehind: true };

/** What there is to choose: playlists, then files from the library. */
function Choices({
  plan,
  search,
  isBehind,
  me,
  only,
  without,
  notIn,
  onOffer,
}: {
  plan: Plan;
  search: string;
  isBehind: boolean;
  me: string;
  only: 'playlist' | 'media' | undefined;
  without: string | undefined;
  notIn: 'zone' | undefined;
  onOffer: (offered: Offered) => void;
}) {
  const { files: all, total = 0, failed, ...library } = useLibrary(search);
  const text = searchable(search);
  // Results of an earlier search don't count, except those with exactly this name.
  const known = library.isBehind ? all?.filter(({ name }) => searchable(name).includes(text)) : all;
  const files = only === 'playlist' ? NO_FILES : known;
  const media = useMemo(() => new Map(plan.media.map((file) => [file.id, file])), [plan]);
  const playlists = (only === 'media' ? [] : plan.playlists)
    .filter((one) => one.id !== without && !one.archived && searchable(one.name).includes(text))
    .sort((a, b) => a.name.localeCompare(b.name));
  const offered = playlists.slice(0, PLAYLISTS_OFFERED);
  const drawn = only ? [] : drawnChoices(plan, notIn).filter(({ name }) => searchable(name).includes(text));
  const isLooking = only !== 'playlist' && (files === undefined || library.isBehind) && !failed;
  // What is called so already is meant; else what the library finds.
  const behind = isBehind || (isLooking && offered.length === 0 && drawn.length === 0 && !files?.length);
  useEffect(() => {
    const [list, file] = [offered[0], files?.[0]];
    const first = list ? `playlist:${list.id}` : (drawn[0]?.value ?? (file && `media:${file.id}`));
    onOffer({ files: files ?? [], first, isBehind: behind });
  });
  const playlistChoice = (one: Playlist, key: string) => {
    const first = media.get(firstMedia(plan, { playlist: one.id }) ?? '');
    return (
      <Choice key={key} value={`playlist:${one.id}`}>
        <Thumb src={first && thumbnailOf(first)} alt="" className="h-7 w-10 shrink-0" />
        <span className="truncate">{one.name}</span>
        <What kind="playlist">{duration(loopLength(plan, one.items))}</What>
      </Choice>
    );
  };
  const fileChoice = (file: Media, key: string) => (
    <Choice key={key} value={`media:${file.id}`}>
      <Thumb src={thumbnailOf(file)} alt="" className="h-7 w-10 shrink-0" />
      <span className="truncate">{file.name}</span>
      <What kind={MEDIA_WORDS[file.kind]}>
        {file.durationMs === undefined ? `${file.width}×${file.height}` : duration(file.durationMs)}
      </What>
    </Choice>
  );
  const lately = text === '' ? recentOf(browserShelf(), me) : [];
  const recent = lately.flatMap((value) => {
    const content = contentOf(value);
    const what = content && knownContent(content);
    if (!what || (only && what.kind !== only)) return [];
    const list = what.kind === 'playlist' ? playlists.find(({ id }) => id === what.id) : undefined;
    const file = what.kind === 'media' ? media.get(what.id) : undefined;
    return list ? [playlistChoice(list, `lately ${value}`)] : file ? [fileChoice(file, `lately ${value}`)] : [];
  });
  return (
    <>
      {recent.length > 0 && <Heading>Chosen lately</Heading>}
      {recent}
      {offered.length > 0 && <Heading>Playlists</Heading>}
      {offered.map((one, i) => playlistChoice(one, placeKey(i, one.id)))}
      {playlists.length > offered.length && <Rest count={playlists.length - offered.length} />}
      {drawn.length > 0 && <Heading>Layouts, cards and inputs</Heading>}
      {drawn.map(({ value, name, kind }, i) => (
        <Choice key={placeKey(i, value)} value={value}>
          <span className="truncate">{name}</span>
          <What kind={kind}>{null}</What>
        </Choice>
      ))}
      {files && files.length > 0 && <Heading>Media</Heading>}
      {files?.map((file, i) => fileChoice(file, placeKey(i, file.id)))}
      {files && only !== 'playlist' && !library.isBehind && total > files.length && (
        <Rest count={total - files.length} />
      )}
      {failed && <p className="px-3 py-1.5 text-sm text-brick">The library isn’t answering. Try again in a moment.</p>}
      {behind && playlists.length === 0 && drawn.length === 0 && !files?.length && (
        <p className="px-3 py-1.5 text-sm text-faint">Looking…</p>
      )}
      {!behind && !files?.length && playlists.length === 0 && drawn.length === 0 && !failed && (
        <p className="px-3 py-1.5 text-sm text-faint">
          {text === '' ? 'You have no playlists or files yet.' : 'No results'}
        </p>
      )}
    </>
  );
}

/** Layouts, cards and the inputs that profiles name, by name. */
function drawnChoices(plan: Plan, notIn: 'zone' | undefined) {
  const inputs = new Map(
    plan.profiles.flatMap(({ inputs: list = [] }) => list.map((one) => [one.id, one.name] as const)),
  );
  const found = [
    ...(notIn === 'zone'
      ? []
      : plan.layouts.map(({ id, name }) => ({ value: `layout:${id}`, name, kind: CONTENTS.layout.called }))),
    ...plan.bulletins.map(({ id, name }) => ({ value: `bulletin:${id}`, name, kind: CONTENTS.bulletin.called })),
    ...[...inputs].map(([id, name]) => ({ value: `input:${id}`, name, kind: CONTENTS.input.called })),
  ];
  return found.sort((a, b) => a.name.localeCompare(b.name));
}

const NO_FILES: readonly Media[] = [];

/** What kind of content it is, and how much of it. */
const What = ({ kind, children }: { kind: string; children: ReactNode }) => (
  <span className="ml-auto shrink-0 pl-3 text-xs text-faint">
    {kind} <span className="font-code text-[11px]">{children}</span>
  </span>
);

const Heading = ({ children }: { children: string }) => (
  <p aria-hidden className="px-3 pt-1.5 pb-0.5 text-xs text-faint">
    {children}
  </p>
);

const Rest = ({ count }: { count: number }) => (
  <p className="px-3 py-1 text-xs text-faint">and {count} more. Type part of the name.</p>
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
