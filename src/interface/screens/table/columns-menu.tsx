'use client';

import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Tick } from '@/interface/kit/controls/field';
import { COLUMNS, COLUMN_KEYS, type ColumnKey } from './columns';

/** Chooses the columns of the table. */
export function ColumnsMenu({
  columns,
  onChange,
}: {
  columns: readonly ColumnKey[];
  onChange: (columns: readonly ColumnKey[]) => void;
}) {
  return (
    <Popover>
      <PopoverButton className="border border-rule bg-sheet px-3 py-1.5 hover:border-ink">Columns</PopoverButton>
      <PopoverPanel anchor="bottom end" className="z-50 w-56 space-y-1.5 border border-rule bg-sheet p-4">
        {COLUMN_KEYS.filter((key) => key !== 'screen').map((key) => (
          <Tick
            key={key}
            label={COLUMNS[key].name}
            checked={columns.includes(key)}
            onChange={({ target }) =>
              onChange(COLUMN_KEYS.filter((one) => (one === key ? target.checked : columns.includes(one))))
            }
          />
        ))}
      </PopoverPanel>
    </Popover>
  );
}
