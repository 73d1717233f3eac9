'use client';

import Link from 'next/link';
import { changed, readDuration, type Layout } from '@/core/plan';
import { done } from '@/core/refusal';
import { Locked } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { Labelled } from '@/interface/forms/look-fields';
import { readName } from '@/interface/forms/read-text';
import { SavedInput } from '@/interface/forms/saved-input';

/** A layout's name, its size, the colour behind its zones, and how long it stays as an item of a playlist. */
export function LayoutHead({ layout }: { layout: Layout }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const of = (field: string) => ({ kind: 'layout' as const, id: layout.id, field });
  const save = (change: Partial<Layout>) => edit(changed('layout', layout, change));
  const usual = draft.network.defaultDurationMs ?? 10_000;
  return (
    <header>
      <div className="flex flex-wrap items-end gap-x-5 md:flex-nowrap">
        <Link href="/layouts" className="shrink-0 pb-1.5 whitespace-nowrap text-tide underline underline-offset-2">
          All layouts
        </Link>
        <h1 className="sr-only">{layout.name}</h1>
        <Locked needs="plan">
          <SavedInput
            label="Name"
            of={of('name')}
            value={layout.name}
            read={readName}
            save={(name) => save({ name })}
            width="min-w-0 flex-1 max-md:order-last max-md:basis-full"
            className="!border-transparent !bg-transparent !px-1 !text-2xl font-heading font-bold hover:!border-rule aria-invalid:!border-brick"
          />
        </Locked>
      </div>
      <Locked needs="plan">
        <div className="mt-1 flex flex-wrap items-start gap-x-6 gap-y-2">
          <p className="pt-1.5 font-code text-sm">
            {layout.width} × {layout.height}
          </p>
          <Labelled name="Background">
            <input
              type="color"
              aria-label="Background"
              className="h-9 w-12 border border-rule bg-sheet p-0.5"
              defaultValue={layout.background ?? '#000000'}
              key={layout.background}
              onBlur={({ target }) => {
                if (target.value !== (layout.background ?? '#000000')) void save({ background: target.value });
              }}
            />
          </Labelled>
          <Labelled name="As an item of a playlist">
            <SavedInput
              label="Seconds as an item of a playlist"
              of={of('durationMs')}
              value={layout.durationMs === undefined ? '' : String(layout.durationMs / 1000)}
              placeholder={String(usual / 1000)}
              inputMode="decimal"
              read={(text) => (text.trim() === '' ? done(undefined) : readDuration(text))}
              save={(durationMs) => save({ durationMs })}
              width="w-28"
              className="!w-20 text-right font-code"
            >
              s
            </SavedInput>
          </Labelled>
        </div>
      </Locked>
    </header>
  );
}
