'use client';

import { useEffect, useState, type FormEvent, type ReactNode } from 'react';
import { changed, removed, tagsSchema, type Media, type Patch, tagsOf } from '@/core/plan';
import { done, refused, type Result } from '@/core/refusal';
import { describeWhen } from '@/core/when';
import { answered } from '@/interface/data/answered';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { everyFile, useLibraryTags, type LibraryFilters } from '@/interface/data/queries';
import { readSaid } from '@/interface/forms/read-said';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Button } from '@/interface/kit/controls/button';
import { Input } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { Sheet } from '@/interface/kit/controls/sheet';
import { PutIn } from './put-in';
import { PutOnScreens } from './put-on-screens';
import type { Chosen } from './use-chosen';

/** At most this many files at once: as many changes as one request may have. */
const MOST = 5000;

/** What is done to many files at once. */
export function ChosenFiles({
  chosen,
  search,
  filters,
  total,
}: {
  chosen: Chosen;
  search: string;
  filters: LibraryFilters;
  /** How many files the search finds, visible or not. */
  total: number;
}) {
  const { draft, edit, hold, notify } = useNetwork('draft', 'edit', 'hold', 'notify');
  const index = useIndex(draft);
  const [onScreens, setOnScreens] = useState(false);
  // From then on the page receives their changes, so that edits build on their present state.
  useEffect(() => hold([...chosen.files.values()]), [chosen.files, hold]);
  const files = [...chosen.files.values()].map((file) => index.media.get(file.id) ?? file);
  const names = counted(files.length, 'file');

  const change = (patchesOf: (file: Media) => Patch[], said: string): Promise<Result<unknown>> => {
    const patches = files.flatMap(patchesOf);
    return patches.length === 0 ? Promise.resolve(done(undefined)) : edit(patches, said);
  };
  const all = () =>
    void answered(everyFile(search, filters, MOST).then(done)).then((found) =>
      found.ok ? chosen.all(found.value) : notify(found.message),
    );

  return (
    <section
      aria-label="Chosen files"
      className="sticky bottom-3 z-20 mt-4 flex flex-wrap items-start gap-x-6 gap-y-2 border border-ink bg-sheet px-4 py-3 text-sm shadow-lg"
    >
      <p className="flex flex-wrap items-center gap-x-3 pt-1.5">
        <span className="font-semibold" role="status">
          {names} chosen
        </span>
        {files.length < Math.min(total, MOST) && (
          <button type="button" className="text-tide underline underline-offset-2" onClick={all}>
            {total > MOST ? `Choose the first ${counted(MOST, 'file')}` : `Choose all ${total}`}
          </button>
        )}
        <button type="button" className="text-tide underline underline-offset-2" onClick={chosen.letGo}>
          {' '}
          Clear selection{' '}
        </button>
      </p>
      <TagThem change={change} names={names} />
      <AvailableThem change={change} names={names} />
      <PutIn filesOf={() => Promise.resolve(done(files))} />
      <span className="flex gap-2">
        <Button needs="plan" onClick={() => setOnScreens(true)}>
          Put on screens…
        </Button>
        <Button
          needs="plan"
          onClick={() =>
            void change(
              (file) => changed('media', file, { archived: filters.archived ? undefined : true }),
              filters.archived ? `${names} are back.` : `${names} were archived. Ctrl Z brings them back.`,
            ).then((result) => result.ok && chosen.letGo())
          }
        >
          {filters.archived ? 'Restore from the archive' : 'Archive'}
        </Button>
        <Button
          needs="plan"
          variant="grave"
          onClick={() =>
            void change((file) => [removed('media', file)], `${names} were deleted. Ctrl Z brings them back.`).then(
              (result) => result.ok && chosen.letGo(),
            )
          }
        >
          Delete
        </Button>
      </span>
      <Sheet title={`Put ${names} on screens`} open={onScreens} onClose={() => setOnScreens(false)}>
        <PutOnScreens files={files} onDone={() => setOnScreens(false)} />
      </Sheet>
    </section>
  );
}

type Change = (patchesOf: (file: Media) => Patch[], said: string) => Promise<Result<unknown>>;

/** A field with acts beside it, and what is wrong with what is written in it. */
function OneField({
  label,
  placeholder,
  list,
  acts,
  act,
}: {
  label: string;
  placeholder: string;
  list?: ReactNode;
  /** What is done, by the names of the buttons; Enter does the first. */
  acts: readonly string[];
  act: (name: string, text: string) => Promise<Result<unknown>>;
}) {
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const run = (name: string) =>
    void act(name, text).then((result) => {
      setWrong(result.ok ? null : result.message);
      if (result.ok) setText('');
    });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    run(acts[0] ?? '');
  };
  return (
    <form noValidate onSubmit={submit} className="flex flex-wrap items-center gap-2">
      <span className="w-44">
        <Input
          aria-label={label}
          placeholder={placeholder}
          autoComplete="off"
          {...(list ? { list: `${label} list` } : {})}
          value={text}
          invalid={wrong !== null}
          onChange={({ target }) => {
            setText(target.value);
            setWrong(null);
          }}
        />
        {list && <datalist id={`${label} list`}>{list}</datalist>}
      </span>
      {acts.map((name, i) => (
        <Button
          needs="plan"
          key={name}
          type={i === 0 ? 'submit' : 'button'}
          onClick={i === 0 ? undefined : () => run(name)}
        >
          {name}
        </Button>
      ))}
      {wrong && (
        <span role="alert" className="basis-full text-brick">
          {wrong}
        </span>
      )}
    </form>
  );
}

function TagThem({ change, names }: { change: Change; names: string }) {
  const known = useLibraryTags();
  const act = async (name: string, text: string) => {
    const read = tagsSchema.safeParse(tagsOf(text));
    if (!read.success) return refused([{ path: '', message: read.error.issues[0]?.message ?? '' }]);
    if (read.data.length === 0) return refused([{ path: '', message: 'Write a tag, or several with commas.' }]);
    const tags = ({ tags: before = [] }: Media) =>
      name === 'Tag' ? [...new Set([...before, ...read.data])] : before.filter((one) => !read.data.includes(one));
    const said = `${names} ${name === 'Tag' ? 'tagged' : 'without'} ${read.data.join(', ')}.`;
    return change((file) => changed('media', file, { tags: tags(file) }), said);
  };
  return (
    <OneField
      label="Tags for the chosen files"
      placeholder="Tags"
      acts={['Tag', 'Remove tag']}
      act={act}
      list={known.slice(0, 100).map(({ tag }) => (
        <option key={tag} value={tag} />
      ))}
    />
  );
}

function AvailableThem({ change, names }: { change: Change; names: string }) {
  const context = usePhraseContext();
  const act = async (_: string, text: string) => {
    const read = readSaid(text, context);
    if (!read.ok) return read;
    const when = read.value;
    const said = `${names} available ${when ? describeWhen(when) : 'always'}.`;
    return change((file) => changed('media', file, { when }), said);
  };
  return (
    <OneField
      label="When the chosen files are available"
      placeholder="Available: until 28 Feb"
      acts={['Set']}
      act={act}
    />
  );
}
