'use client';

import { X } from 'lucide-react';
import type { ReactNode } from 'react';

/** What is beside the streets, on phones over them: about the screens that are chosen. */
export function Aside({
  label,
  head,
  onClose,
  children,
}: {
  label: string;
  head: ReactNode;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <aside
      aria-label={label}
      className="w-80 shrink-0 overflow-y-auto border-l border-rule bg-sheet p-5 max-md:absolute max-md:inset-0 max-md:z-20 max-md:w-full max-md:border-l-0"
    >
      <header className="flex items-start justify-between gap-2">
        <div>{head}</div>
        <button type="button" aria-label="Close" onClick={onClose} className="p-1 hover:text-tide">
          <X size={18} aria-hidden />
        </button>
      </header>
      {children}
    </aside>
  );
}
