'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import Link from 'next/link';
import { memo, useEffect, useRef, useState, type CSSProperties, type KeyboardEvent, type MouseEvent } from 'react';
import { Select } from '@/interface/kit/controls/field';
import { Lantern } from '@/interface/kit/lantern/lantern';
import { useWidth } from '@/interface/kit/page/use-width';
import { pressed, type Chosen } from '@/interface/now/selection';
import { COLUMNS, type ColumnKey, type Row, type Sort } from './columns';

const ROW_HEIGHT = 36;
/** In less room than this a row has two lines, and no columns: you needn't scroll sideways on a phone. */
const NARROW = 700;
const NARROW_ROW_HEIGHT = 60;
const ROWS_AROUND = 12;
const FIRST_SIGHT = { width: 1240, height: 600 };

/** The rows of the table. However many there are, only the visible ones are drawn; they are chosen as the tiles of Now are. */
export function ScreensTable({
  rows,
  columns,
  now,
  sort,
  onSort,
  selected,
  select,
}: {
  rows: readonly Row[];
  columns: readonly ColumnKey[];
  now: number;
  sort: Sort;
  onSort: (sort: Sort) => void;
  selected: ReadonlySet<string>;
  select: (ids: ReadonlySet<string>) => void;
}) {
  const scroll = useRef<HTMLDivElement>(null);
  const anchor = useRef<string | null>(null);
  const [focused, setFocused] = useState(0);
  const isNarrow = useWidth(scroll, FIRST_SIGHT.width) < NARROW;
  const height = isNarrow ? NARROW_ROW_HEIGHT : ROW_HEIGHT;
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => height,
    getItemKey: (i) => rows[i]?.screen.id ?? i,
    overscan: ROWS_AROUND,
    initialRect: FIRST_SIGHT,
    useFlushSync: false,
  });
  useEffect(() => virtual.measure(), [virtual, height]);
  const order = () => rows.map(({ screen }) => screen.id);
  const choose = (next: Chosen) => {
    anchor.current = next.anchor;
    select(next.ids);
  };
  const press = (id: string, { ctrlKey, metaKey, shiftKey }: Pick<MouseEvent, 'ctrlKey' | 'metaKey' | 'shiftKey'>) =>
    choose(
      pressed({ ids: selected, anchor: anchor.current }, id, order(), { more: ctrlKey || metaKey, stretch: shiftKey }),
    );
  const rowAt = (target: EventTarget) =>
    Number((target as HTMLElement).closest<HTMLElement>('[data-row]')?.dataset.row);
  const goTo = (to: number) => {
    virtual.scrollToIndex(to, { align: 'auto' });
    // It is drawn in the next frame if it was out of sight.
    requestAnimationFrame(() => scroll.current?.querySelector<HTMLElement>(`[data-row="${to}"]`)?.focus());
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const at = rowAt(event.target);
    const id = rows[at]?.screen.id;
    if (id === undefined || event.altKey || (event.target as HTMLElement).closest('a')) return;
    const more = event.ctrlKey || event.metaKey;
    const to = stepped(event.key, at, rows.length - 1, Math.floor((scroll.current?.clientHeight ?? 0) / height));
    if (more && event.key.toLowerCase() === 'a') choose({ ids: new Set(order()), anchor: id });
    else if (event.key === ' ') press(id, { ctrlKey: true, metaKey: false, shiftKey: event.shiftKey });
    else if (event.key === 'Enter') press(id, { ctrlKey: false, metaKey: false, shiftKey: false });
    else if (to !== null && !more) {
      goTo(to);
      const next = rows[to]?.screen.id;
      if (event.shiftKey && next !== undefined) {
        anchor.current ??= id;
        press(next, event);
      }
    } else return;
    event.preventDefault();
  };
  const width = isNarrow ? undefined : columns.reduce((sum, key) => sum + COLUMNS[key].width, 0);
  const tabbable = Math.min(focused, rows.length - 1);
  const items = virtual.getVirtualItems();
  // A row that is out of sight can't be reached by Tab: then the first visible one is.
  const reached = items.some(({ index }) => index === tabbable) ? tabbable : items[0]?.index;
  return (
    <div
      ref={scroll}
      role="grid"
      aria-label="Screens"
      aria-multiselectable
      aria-rowcount={rows.length + 1}
      aria-colcount={isNarrow ? 1 : columns.length}
      className="min-h-80 flex-1 overflow-auto border-t border-rule pb-4"
    >
      <div style={{ width, minWidth: '100%' }}>
        <div role="rowgroup" className="sticky top-0 z-10 bg-paper">
          <div role="row" aria-rowindex={1} className="flex border-b border-rule">
            {isNarrow && <SortChoice {...{ columns, sort, onSort }} />}
            {(isNarrow ? [] : columns).map((key) => {
              const isHere = sort.by === key;
              return (
                <div
                  key={key}
                  role="columnheader"
                  aria-sort={isHere ? (sort.down ? 'descending' : 'ascending') : 'none'}
                  className="shrink-0 grow-0"
                  style={{ width: COLUMNS[key].width }}
                >
                  <button
                    type="button"
                    onClick={() => onSort({ by: key, down: isHere && !sort.down })}
                    className={`flex w-full items-center gap-1 py-1.5 pr-3 text-left text-sm hover:text-ink ${key === 'screen' ? 'pl-2' : ''} ${isHere ? 'font-semibold' : 'text-faint'}`}
                  >
                    {COLUMNS[key].name} {isHere && <span aria-hidden>{sort.down ? '↓' : '↑'}</span>}
                  </button>
                </div>
              );
            })}
          </div>
        </div>
        {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- presses and keys are for the rows inside */}
        <div
          role="rowgroup"
          className="relative select-none"
          style={{ height: virtual.getTotalSize() }}
          onClick={(event) => {
            const id = rows[rowAt(event.target)]?.screen.id;
            if (id !== undefined && !(event.target as HTMLElement).closest('a')) press(id, event);
          }}
          onKeyDown={onKeyDown}
          onFocus={(event) => setFocused(rowAt(event.target) || 0)}
        >
          {items.map(({ index, start, key }) => {
            const row = rows[index];
            return (
              row && (
                <TableRow
                  key={key}
                  {...{ row, index, start, columns, now, height, isNarrow }}
                  isChosen={selected.has(row.screen.id)}
                  isReached={index === reached}
                />
              )
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** Where a key leads from a row; null for a key that leads nowhere. */
function stepped(key: string, at: number, last: number, page: number): number | null {
  const steps: Readonly<Record<string, number>> = {
    ...{ ArrowUp: at - 1, ArrowDown: at + 1, PageUp: at - page, PageDown: at + page, Home: 0, End: last },
  };
  const to = steps[key];
  return to === undefined ? null : Math.min(last, Math.max(0, to));
}

const TableRow = memo(function TableRow({
  row,
  index,
  start,
  columns,
  now,
  height,
  isNarrow,
  isChosen,
  isReached,
}: {
  row: Row;
  index: number;
  start: number;
  columns: readonly ColumnKey[];
  now: number;
  height: number;
  isNarrow: boolean;
  isChosen: boolean;
  isReached: boolean;
}) {
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-selected={isChosen}
      data-row={index}
      data-table-row={row.screen.id}
      tabIndex={isReached ? 0 : -1}
      className={`absolute top-0 left-0 flex w-full items-center border-b border-rule/60 ${isChosen ? 'bg-well shadow-[inset_3px_0_0_var(--color-dusk)]' : 'hover:bg-sheet'}`}
      style={{ height, transform: `translateY(${start}px)` } as CSSProperties}
    >
      {isNarrow ? (
        <TwoLines {...{ row, columns, now }} />
      ) : (
        columns.map((key) => <Cell key={key} name={key} row={row} now={now} />)
      )}
    </div>
  );
});

/** A row where there isn't room for columns: the screen and its state, and under them all else. */
function TwoLines({ row, columns, now }: { row: Row; columns: readonly ColumnKey[]; now: number }) {
  const others = columns.filter((key) => key !== 'screen' && key !== 'state');
  return (
    <div role="gridcell" className="min-w-0 flex-1 px-2">
      <span className="flex items-center gap-2">
        <Link
          href={`/screens/${encodeURIComponent(row.screen.id)}`}
          tabIndex={-1}
          className="min-h-6 min-w-0 truncate font-semibold underline-offset-2 hover:underline"
        >
          {row.screen.name}
        </Link>
        <span className="ml-auto flex shrink-0 items-center gap-1.5 text-sm">
          <Lantern state={row.facts.state} size={16} /> {COLUMNS.state.text(row, now)}
        </span>
      </span>
      <span className="block truncate text-sm text-faint">
        {others
          .map((key) => COLUMNS[key].text(row, now))
          .filter((words) => words !== '')
          .join(' · ')}
      </span>
    </div>
  );
}

/** What the heads of columns do, where there aren't columns. */
function SortChoice({
  columns,
  sort,
  onSort,
}: {
  columns: readonly ColumnKey[];
  sort: Sort;
  onSort: (sort: Sort) => void;
}) {
  return (
    <div role="columnheader" className="flex flex-1 items-center gap-2 py-1.5">
      <Select
        aria-label="Sort by"
        className="!w-auto"
        value={sort.by}
        onChange={({ target }) => onSort({ by: target.value as ColumnKey, down: false })}
      >
        {[...new Set([...columns, sort.by])].map((key) => (
          <option key={key} value={key}>
            By {COLUMNS[key].name.toLowerCase()}
          </option>
        ))}
      </Select>
      <button
        type="button"
        aria-label={sort.down ? 'Sort upwards' : 'Sort downwards'}
        onClick={() => onSort({ ...sort, down: !sort.down })}
        className="min-h-8 min-w-8 border border-rule bg-sheet"
      >
        {sort.down ? '↓' : '↑'}
      </button>
    </div>
  );
}

function Cell({ name, row, now }: { name: ColumnKey; row: Row; now: number }) {
  const { width, text } = COLUMNS[name];
  const words = text(row, now);
  const look = LOOKS[name] ?? '';
  return (
    <div role="gridcell" title={words} className={`shrink-0 grow-0 truncate pr-3 text-sm ${look}`} style={{ width }}>
      {name === 'screen' ? (
        <Link
          href={`/screens/${encodeURIComponent(row.screen.id)}`}
          tabIndex={-1}
          className="pl-2 text-base font-semibold underline-offset-2 hover:underline"
        >
          {words}
        </Link>
      ) : name === 'state' ? (
        <span className="flex items-center gap-1.5">
          <Lantern state={row.facts.state} size={16} /> {words}
        </span>
      ) : (
        words
      )}
    </div>
  );
}

const LOOKS: { readonly [K in ColumnKey]?: string } = {
  ...{ trouble: 'text-brick', tags: 'text-tide', size: 'font-code text-xs', since: 'text-faint' },
  ...{ lastSeen: 'text-faint', software: 'text-faint', lightsOut: 'text-faint' },
};
