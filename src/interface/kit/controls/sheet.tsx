'use client';

import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from '@headlessui/react';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

/** A sheet that slides over the right of the place: for one thing's details. Escape and a click beside it close it. */
export function Sheet({
  title,
  open,
  onClose,
  children,
}: {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog open={open} onClose={onClose} data-sheet className="relative z-40">
      <DialogBackdrop className="fixed inset-0 bg-[rgb(0_0_0/0.35)]" />
      <div className="fixed inset-y-0 right-0 flex w-full max-w-xl">
        <DialogPanel className="flex w-full flex-col scroll-pt-16 scroll-pb-20 overflow-y-auto border-l border-rule bg-paper">
          <header className="sticky top-0 z-10 flex items-start justify-between gap-4 border-b border-rule bg-paper px-6 py-4">
            <DialogTitle className="text-xl">{title}</DialogTitle>
            <button type="button" onClick={onClose} aria-label="Close" className="p-1 hover:text-tide">
              <X size={20} aria-hidden />
            </button>
          </header>
          <div className="flex-1 px-6 py-5">{children}</div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
