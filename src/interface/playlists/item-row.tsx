'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ChevronDown, ChevronUp, GripVertical, X } from 'lucide-react';
import {
  describeWhen,
  done,
  itemLength,
  knownItem,
  parseSelector,
  readDuration,
  type Item,
  type Plan,
  type Result,
} from '@/core';
import { useThumbnails } from '@/interface/data/provider';
import { counted, duration } from '@/interface/kit/format';
import { SavedInput } from '@/interface/kit/saved-input';
import { selectScreens } from '@/interface/kit/selector-field';
import { Thumb } from '@/interface/kit/thumb';
import { itemName } from './item-name';

interface ItemRowProps {
  readonly id: string;
  readonly plan: Plan;
  readonly item: Item;
  readonly first: boolean;
  readonly last: boolean;
  onChange(item: Item): Promise<Result<unknown>>;
  onMove(by: 1 | -1): void;
  onRemove(): void;
}

/** What is no single file says what it is. */
const KIND_WORDS: Record<ReturnType<typeof knownItem>['kind'], string | null> = {
  media: null,
  playlist: 'playlist',
  collect: 'collecting rule',
};

/** One item: dragged by its grip, or moved by the grip's keys (space, arrows, space) and the two arrows. */
export function ItemRow({ id, plan, item, first, last, onChange, onMove, onRemove }: ItemRowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  const thumbnail = useThumbnails();
  const name = itemName(plan, item);
  const media = item.media === undefined ? undefined : plan.media.find((one) => one.id === item.media);
  const { durationMs, files } = itemLength(plan, item);
  const kind = KIND_WORDS[knownItem(item).kind];
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`flex items-center gap-4 border-b border-rule py-1.5 last:border-b-0 ${isDragging ? 'relative z-10 bg-well' : ''}`}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        aria-label={`Move ${name}`}
        className="cursor-grab touch-none p-1 text-faint hover:text-ink"
        {...attributes}
        {...listeners}
      >
        <GripVertical size={18} aria-hidden />
      </button>
      <Thumb src={thumbnail(item.media)} alt="" className="h-11 w-20 shrink-0" />
      <div className="min-w-0 flex-1">
        <p className="truncate font-semibold">{name}</p>
        <p className="truncate text-sm text-faint">
          {[
            kind,
            files === 1 ? null : counted(files, 'file'),
            item.when ? describeWhen(item.when) : null,
            media?.when ? `file: ${describeWhen(media.when)}` : null,
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      </div>
      <WhereInput plan={plan} item={item} name={name} onChange={onChange} />
      {item.playlist === undefined && media?.kind !== 'video' ? (
        <SecondsInput
          item={item}
          name={name}
          usualMs={media?.durationMs ?? plan.network.defaultDurationMs ?? 10_000}
          onChange={onChange}
        />
      ) : (
        <span className="w-28 text-right font-code text-sm">{duration(durationMs)}</span>
      )}
      <div className="flex">
        <IconButton label={`Move ${name} up`} disabled={first} onClick={() => onMove(-1)}>
          <ChevronUp size={18} aria-hidden />
        </IconButton>
        <IconButton label={`Move ${name} down`} disabled={last} onClick={() => onMove(1)}>
          <ChevronDown size={18} aria-hidden />
        </IconButton>
        <IconButton label={`Take ${name} out`} onClick={onRemove}>
          <X size={18} aria-hidden />
        </IconButton>
      </div>
    </li>
  );
}

function IconButton({
  label,
  ...rest
}: {
  label: string;
  disabled?: boolean;
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

type Saved = ReturnType<ItemRowProps['onChange']>;

/** How long it is on screen; empty follows the file or the network. */
function SecondsInput({
  item,
  name,
  usualMs,
  onChange,
}: {
  item: Item;
  name: string;
  usualMs: number;
  onChange: (item: Item) => Saved;
}) {
  return (
    <SavedInput
      label={`Seconds of ${name}`}
      placeholder={String(usualMs / 1000)}
      value={item.durationMs === undefined ? '' : String(item.durationMs / 1000)}
      read={(text) => (text.trim() === '' ? done(undefined) : readDuration(text))}
      save={(durationMs) => onChange({ ...item, durationMs } as Item)}
      width="w-28 shrink-0 text-sm"
      className="!w-20 text-right font-code"
    >
      s
    </SavedInput>
  );
}

/** On which screens the item plays; empty is all. */
function WhereInput({
  plan,
  item,
  name,
  onChange,
}: {
  plan: Plan;
  item: Item;
  name: string;
  onChange: (item: Item) => Saved;
}) {
  return (
    <SavedInput
      label={`Screens of ${name}`}
      placeholder="on all screens"
      value={item.where ?? ''}
      read={(text) => {
        const where = text.trim();
        if (where === '') return done(undefined);
        const selector = parseSelector(where);
        return selector.ok ? done(where) : selector;
      }}
      save={(where) => onChange({ ...item, where } as Item)}
      note={(text) => matchesNone(plan, text)}
      width="w-44 shrink-0"
      className="text-sm"
    />
  );
}

/** Says so where a selector is right and no screen is meant by it. */
function matchesNone(plan: Plan, text: string): string | null {
  if (text.trim() === '') return null;
  const found = selectScreens(plan, text);
  return found.ok && found.value.length === 0 ? 'No screen matches this.' : null;
}
