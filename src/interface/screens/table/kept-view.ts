import { useEffect, useState } from 'react';
import * as z from 'zod';
import { browserShelf } from '@/interface/kit/page/shelf';
import { COLUMN_KEYS, USUAL, type ColumnKey, type Sort } from './columns';

/** How a person wants the table: kept in this browser. */
export interface TableView {
  readonly columns: readonly ColumnKey[];
  readonly sort: Sort;
}

const KEY = 'lanternpost-table';
const USUAL_VIEW: TableView = { columns: USUAL, sort: { by: 'state', down: false } };

const keySchema = z.enum(COLUMN_KEYS as [ColumnKey, ...ColumnKey[]]);
const viewSchema = z.object({
  columns: z.array(keySchema).min(1),
  sort: z.object({ by: keySchema, down: z.boolean() }),
});

function kept(): TableView {
  try {
    const read = viewSchema.safeParse(JSON.parse(browserShelf()?.getItem(KEY) ?? 'null'));
    return read.success ? read.data : USUAL_VIEW;
  } catch {
    return USUAL_VIEW;
  }
}

/** The view, and how it is changed. Where the browser stores nothing, it holds until the page is closed. */
export function useTableView(): [TableView, (view: TableView) => void] {
  // As the server draws it at first.
  const [view, setView] = useState(USUAL_VIEW);
  useEffect(() => setView(kept()), []);
  return [
    view,
    (next) => {
      setView(next);
      try {
        browserShelf()?.setItem(KEY, JSON.stringify(next));
      } catch {
        // It is full, or not allowed.
      }
    },
  ];
}
