'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ChevronDown, ChevronUp, GripVertical, X } from 'lucide-react';
import { useState } from 'react';
import { describeWhen, durationSchema, itemLength, parseSelector, type Item, type Plan, knownItem } from '@/core';
import { useThumbnails } from '@/interface/data/provider';
import { Input } from '@/interface/kit/field';
import { counted, duration } from '@/interface/kit/format';
import { Thumb } from '@/interface/kit/thumb';
import { itemName } from './item-name';

interface ItemRowProps {
  readonly id: string;
  readonly plan: Plan;
  readonly item: Item;
  readonly first: boolean;
  readonly last: boolean;
  onChange(item: Item): void;
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
      <WhereInput item={item} name={name} onChange={onChange} />
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

/** Seconds on screen; empty follows the file or the network. */
function SecondsInput({
  item,
  name,
  usualMs,
  onChange,
}: {
  item: Item;
  name: string;
  usualMs: number;
  onChange: (item: Item) => void;
}) {
  const own = item.durationMs === undefined ? '' : String(item.durationMs / 1000);
  const [typed, setTyped] = useState<string | null>(null);
  const wanted = typed === null || typed.trim() === '' ? undefined : Math.round(Number(typed.replace(',', '.')) * 1000);
  const wrong = wanted !== undefined && !durationSchema.safeParse(wanted).success;
  return (
    <span className="flex w-28 items-center justify-end gap-1.5 font-code text-sm">
      <Input
        aria-label={`Seconds of ${name}`}
        inputMode="decimal"
        placeholder={String(usualMs / 1000)}
        title={wrong ? 'Write 0.1 to 86 400 seconds' : undefined}
        invalid={wrong}
        value={typed ?? own}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (typed !== null && !wrong && typed !== own) onChange({ ...item, durationMs: wanted } as Item);
          if (!wrong) setTyped(null);
        }}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        className="!w-20 text-right"
      />
      s
    </span>
  );
}

/** On which screens the item plays; empty is all. */
function WhereInput({ item, name, onChange }: { item: Item; name: string; onChange: (item: Item) => void }) {
  const own = item.where ?? '';
  const [typed, setTyped] = useState<string | null>(null);
  const parsed = typed === null || typed.trim() === '' ? null : parseSelector(typed);
  const error = parsed?.ok === false ? parsed.message : undefined;
  return (
    <Input
      aria-label={`Screens of ${name}`}
      placeholder="on all screens"
      title={error}
      invalid={error !== undefined}
      value={typed ?? own}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => {
        if (typed !== null && error === undefined && typed !== own)
          onChange({ ...item, where: typed.trim() === '' ? undefined : typed.trim() });
        if (error === undefined) setTyped(null);
      }}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      className="!w-44 text-sm"
    />
  );
}
