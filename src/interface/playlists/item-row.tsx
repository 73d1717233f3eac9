'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import Link from 'next/link';
import { useState, type ComponentProps } from 'react';
import { ChevronDown, ChevronUp, GripVertical, SlidersHorizontal, X } from 'lucide-react';
import { itemFiles, itemLength, type Turn } from '@/core/forecast';
import { clipText, isShown, knownItem, readClip, readDuration, type Item, type Media, type Plan } from '@/core/plan';
import { done, type Result } from '@/core/refusal';
import { describeWhen } from '@/core/when';
import { useThumbnails } from '@/interface/data/provider';
import { counted, duration } from '@/interface/kit/words/format';
import { WhereBox } from '@/interface/forms/where-box';
import { readWhere } from '@/interface/forms/read-text';
import { SavedInput } from '@/interface/forms/saved-input';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import { Thumb } from '@/interface/kit/content/thumb';
import { FilmCut } from './film-cut';
import { ItemLook, lookWords } from './item-look';
import { itemName } from './item-name';
import { percent } from './passes';

interface ItemRowProps {
  readonly id: string;
  /** The playlist's id. */
  readonly playlist: string;
  readonly plan: Plan;
  readonly item: Item;
  /** Its turns in the pass that is looked at; none where those screens do not see it. */
  readonly turns: readonly Turn[];
  /** How long that pass is, in milliseconds. */
  readonly passMs: number;
  /** Its place in the playlist, from 1 on. */
  readonly place: number;
  /** On which side of it what is dragged would land; null for neither. */
  readonly line: 'above' | 'below' | null;
  readonly first: boolean;
  readonly last: boolean;
  /** Chosen with others, for what is done to several at once. */
  readonly chosen: boolean;
  /** How many are carried while it is dragged; 0 else. */
  readonly carried: number;
  onChoose(chosen: boolean, upTo: boolean): void;
  onChange(item: Item): Promise<Result<unknown>>;
  onMove(by: 1 | -1): void;
  onRemove(): void;
}

/** For items other than a single file: what they are. */
const KIND_WORDS: Record<ReturnType<typeof knownItem>['kind'], string | null> = {
  media: null,
  playlist: 'playlist',
  layout: 'layout',
  bulletin: 'bulletin',
  input: 'input',
  collect: 'collecting rule',
};

/** One item: dragged by its grip, or moved by the grip's keys (space, arrows, space) and the two arrows. */
export function ItemRow({
  id,
  playlist,
  plan,
  item,
  turns,
  passMs,
  place,
  line,
  first,
  last,
  chosen,
  carried,
  onChoose,
  onChange,
  onMove,
  onRemove,
}: ItemRowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  const name = itemName(plan, item);
  const media = item.media === undefined ? undefined : plan.media.find((one) => one.id === item.media);
  const { durationMs, files } = itemLength(plan, item);
  const kind = KIND_WORDS[knownItem(item).kind];
  const isSound = media !== undefined && !isShown(media);
  const [isOpen, setOpen] = useState(false);
  const onAir = turns.reduce((sum, turn) => sum + turn.durationMs, 0);
  return (
    <li
      ref={setNodeRef}
      data-item={id}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`@container relative border-b border-rule py-1.5 last:border-b-0 ${isDragging ? 'z-10 bg-well' : chosen ? 'bg-well' : ''}`}
    >
      {line && (
        <span
          aria-hidden
          data-testid="lands"
          className={`absolute inset-x-0 z-20 h-1 bg-dusk ${line === 'above' ? '-top-0.5' : '-bottom-0.5'}`}
        />
      )}
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5 @3xl:flex-nowrap">
        <input
          type="checkbox"
          aria-label={`Choose ${name}`}
          className="-mr-2 size-4 shrink-0 accent-dusk"
          checked={chosen}
          onChange={() => undefined}
          onClick={({ shiftKey }) => onChoose(!chosen, shiftKey)}
        />
        <button
          ref={setActivatorNodeRef}
          type="button"
          aria-label={`Move ${name}`}
          className="relative cursor-grab touch-none p-1 text-faint hover:text-ink"
          {...attributes}
          {...listeners}
        >
          <GripVertical size={18} aria-hidden />
          {carried > 1 && <Together count={carried} />}
        </button>
        <span aria-hidden className="-ml-2 w-6 shrink-0 text-right font-code text-xs text-faint">
          {place}
        </span>
        <Pictures
          turns={turns.length > 0 ? turns : item.media === undefined ? [] : [{ media: item.media }]}
          hidden={turns.length === 0}
        />
        <div className="min-w-0 flex-1">
          <p className="truncate font-semibold">
            {item.playlist === undefined ? (
              name
            ) : (
              <Link href={`/playlists/${item.playlist}`} className="text-tide underline underline-offset-2">
                {name}
              </Link>
            )}
          </p>
          <p className="truncate text-sm text-faint">
            {[
              kind,
              isSound ? 'a sound: it plays when this playlist is another’s music' : null,
              !isSound && turns.length === 0 && passMs > 0 ? 'not on these screens' : null,
              turns.length > 0 ? `${percent(onAir, passMs)} of a pass` : null,
              files === 1 ? null : counted(turns.length || files, 'file'),
              ...lookWords(item),
              media?.when ? `file: ${describeWhen(media.when)}` : null,
            ]
              .filter(Boolean)
              .join(' · ')}
          </p>
          <Step startMs={turns[0]?.startMs ?? 0} durationMs={onAir} passMs={passMs} />
        </div>
        <div className="flex items-start gap-4 @max-3xl:w-full @max-3xl:pl-14 @max-3xl:pb-1 @max-md:gap-2 @max-md:pl-0">
          <WhereInput
            of={{ kind: 'playlist', id: playlist, field: `${id} where` }}
            plan={plan}
            item={item}
            name={name}
            onChange={onChange}
          />
          {isSound ? (
            <span className="w-28 text-right font-code text-sm">{duration(media.durationMs ?? 0)}</span>
          ) : item.playlist === undefined && media?.kind !== 'video' ? (
            <SecondsInput
              of={{ kind: 'playlist', id: playlist, field: `${id} seconds` }}
              item={item}
              name={name}
              usualMs={media?.durationMs ?? plan.network.defaultDurationMs ?? 10_000}
              onChange={onChange}
            />
          ) : media ? (
            <ClipInput
              of={{ kind: 'playlist', id: playlist, field: `${id} clip` }}
              item={item}
              film={media}
              name={name}
              onChange={onChange}
            />
          ) : (
            <span className="w-28 text-right font-code text-sm">{duration(onAir || durationMs)}</span>
          )}
          <div className="flex">
            <IconButton
              label={`How ${name} looks, sounds, and when`}
              aria-expanded={isOpen}
              onClick={() => setOpen(!isOpen)}
            >
              <SlidersHorizontal size={18} aria-hidden />
            </IconButton>
            <IconButton label={`Move ${name} up`} disabled={first} onClick={() => onMove(-1)}>
              <ChevronUp size={18} aria-hidden />
            </IconButton>
            <IconButton label={`Move ${name} down`} disabled={last} onClick={() => onMove(1)}>
              <ChevronDown size={18} aria-hidden />
            </IconButton>
            <IconButton label={`Remove ${name}`} onClick={onRemove}>
              <X size={18} aria-hidden />
            </IconButton>
          </div>
        </div>
      </div>
      {isOpen && (
        <div className="flex flex-wrap items-start gap-x-5 gap-y-2 pt-1 pb-2 pl-14">
          {media?.kind === 'video' && media.sha256 !== undefined && (
            <FilmCut
              name={name}
              film={media}
              clip={item.clip}
              onCut={(clip) => void onChange({ ...item, clip, durationMs: undefined } as Item)}
            />
          )}
          <ItemLook
            playlist={playlist}
            names={name}
            items={[item]}
            films={itemFiles(plan, item)}
            onChange={(look) => onChange({ ...item, ...look } as Item)}
          />
        </div>
      )}
    </li>
  );
}

/** How many are dragged together. */
export const Together = ({ count }: { count: number }) => (
  <span className="absolute -top-2 -right-2 z-20 bg-dusk px-1.5 font-code text-xs text-on-dusk">{count}</span>
);

/** What is seen of it: its first pictures, side by side. */
function Pictures({ turns, hidden }: { turns: readonly { readonly media?: string | undefined }[]; hidden: boolean }) {
  const thumbnail = useThumbnails();
  const files = [...new Set(turns.map(({ media }) => media))].slice(0, 3);
  return (
    <div aria-hidden className={`flex h-11 w-20 shrink-0 gap-px overflow-hidden ${hidden ? 'opacity-40' : 'bg-ink'}`}>
      {files.length === 0 ? (
        <span className="hatch h-full w-full bg-well text-faint" />
      ) : (
        files.map((media) => (
          <Thumb key={media} src={thumbnail(media)} alt="" className="h-full min-w-0 flex-1 object-cover!" />
        ))
      )}
    </div>
  );
}

/** Where in the pass an item stands, and how much of it it is: under each other they are a stair. */
function Step({ startMs, durationMs, passMs }: { startMs: number; durationMs: number; passMs: number }) {
  return (
    <div aria-hidden className="relative mt-0.5 h-1 bg-well">
      {passMs > 0 && durationMs > 0 && (
        <div
          className="absolute h-full min-w-1 bg-dusk"
          style={{ left: `${(startMs / passMs) * 100}%`, width: `${(durationMs / passMs) * 100}%` }}
        />
      )}
    </div>
  );
}

function IconButton({
  label,
  ...rest
}: {
  label: string;
  disabled?: boolean;
  'aria-expanded'?: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="p-1 text-faint hover:text-ink disabled:opacity-30"
      {...rest}
    />
  );
}

/** What every field of an item is given. */
interface FieldOfItem {
  readonly of: ComponentProps<typeof SavedInput>['of'];
  readonly item: Item;
  readonly name: string;
  onChange(item: Item): ReturnType<ItemRowProps['onChange']>;
}

/** A duration beside an item, in seconds: how much time it gets on screen, or which part of its video plays. */
function SecondsField<T>(
  props: Pick<ComponentProps<typeof SavedInput<T>>, 'of' | 'label' | 'placeholder' | 'value' | 'read' | 'save'>,
) {
  return (
    <SavedInput {...props} width="w-28 shrink-0 text-sm @max-md:w-24" className="!w-20 text-right font-code">
      s
    </SavedInput>
  );
}

/** Its time on screen; empty for the file's or the network's. */
function SecondsInput({ of, item, name, usualMs, onChange }: FieldOfItem & { usualMs: number }) {
  return (
    <SecondsField
      of={of}
      label={`Seconds of ${name}`}
      placeholder={String(usualMs / 1000)}
      value={item.durationMs === undefined ? '' : String(item.durationMs / 1000)}
      read={(text) => (text.trim() === '' ? done(undefined) : readDuration(text))}
      save={(durationMs) => onChange({ ...item, durationMs } as Item)}
    />
  );
}

/** Which part of a film plays; empty is all of it. */
function ClipInput({ of, item, name, film, onChange }: FieldOfItem & { film: Media }) {
  return (
    <SecondsField
      of={of}
      label={`Clip of ${name}`}
      placeholder={film.durationMs === undefined ? 'whole' : `0–${film.durationMs / 1000}`}
      value={item.clip ? clipText(item.clip) : ''}
      read={(text) => readClip(text, film)}
      save={(clip) => onChange({ ...item, clip, ...(clip ? { durationMs: undefined } : {}) } as Item)}
    />
  );
}

/** On which screens the item plays; empty is all. */
function WhereInput({ of, plan, item, name, onChange }: FieldOfItem & { plan: Plan }) {
  return (
    <SavedInput
      of={of}
      label={`Screens of ${name}`}
      placeholder="on all screens"
      value={item.where ?? ''}
      read={(text) => readWhere(text, plan)}
      save={(where) => onChange({ ...item, where } as Item)}
      note={(text) => matchesNone(plan, text)}
      box={({ onWrite, focusOn, ...field }) => (
        <WhereBox plan={plan} {...field} onChange={onWrite} inputRef={focusOn} />
      )}
      width="w-44 shrink-0 @max-md:w-auto @max-md:min-w-0 @max-md:flex-1"
      className="text-sm"
    />
  );
}

/** Says so where a selector is right and no screen matches by it. */
function matchesNone(plan: Plan, text: string): string | null {
  if (text.trim() === '') return null;
  const found = selectScreens(plan, text);
  return found.ok && found.value.length === 0 ? 'No screen matches this.' : null;
}
