'use client';

import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import type { ReactNode } from 'react';
import { GLOSSARY, type OwnWord } from './glossary';

/** A word of our own, where it is met first: pressing it says what it means. It is made of spans, so a sentence can have it. */
export function Word({ of, children }: { of: OwnWord; children: ReactNode }) {
  return (
    <Popover as="span">
      <PopoverButton
        title={GLOSSARY[of]}
        className="cursor-help underline decoration-faint decoration-dotted decoration-1 underline-offset-4"
      >
        {children}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 6, padding: 8 }}
        className="z-50 max-w-xs border border-rule bg-sheet px-3 py-2 font-text text-sm font-normal text-ink shadow-md"
      >
        <strong className="font-semibold">{of}</strong>: {GLOSSARY[of]}.
      </PopoverPanel>
    </Popover>
  );
}
