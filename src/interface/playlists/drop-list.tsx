'use client';

import { useDroppable } from '@dnd-kit/core';
import type { ReactNode } from 'react';

/** The list of a playlist's items; empty, a place to drag files to. */
export function DropList({ empty, children }: { empty: boolean; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: 'empty', disabled: !empty });
  return (
    <div
      ref={setNodeRef}
      className={`mt-3 min-h-24 border-y border-rule ${isOver ? 'bg-well' : ''}`}
      data-testid="items"
    >
      {empty ? (
        <p className="py-8 text-center text-faint">Drag files here from the right, or press + on one.</p>
      ) : (
        <ol aria-label="Items">{children}</ol>
      )}
    </div>
  );
}
