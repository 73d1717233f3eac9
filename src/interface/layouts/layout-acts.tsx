'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isTall, partnerOf } from '@/core/layouts';
import { added, removed, type Layout, type Patch } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { OnAir } from '@/interface/forecast/on-air';
import { BookIt } from '@/interface/kit/content/book-it';
import { Button } from '@/interface/kit/controls/button';
import { Sheet } from '@/interface/kit/controls/sheet';
import { UsedIn } from '@/interface/kit/content/used-in';
import { freeName } from '@/interface/kit/words/free-name';
import { BookOn } from './book-on';
import { turnedLayout } from './turned-layout';

/** Where a layout shows and is used; and what is done with it as a whole: put on screens, turned, copied, deleted. */
export function LayoutActs({ layout }: { layout: Layout }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const router = useRouter();
  const [isBooking, setBooking] = useState(false);
  const partner = partnerOf(draft.layouts, layout);
  const other = isTall(layout) ? 'landscape' : 'portrait';
  const add = async (patch: Patch, said: string) => {
    const result = await edit([patch], said);
    if (result.ok) router.push(`/layouts/${result.value.ids[0]}`);
  };
  const copy = () => {
    const { id: _, ...document } = layout;
    const name = freeName(layout.name, draft.layouts);
    void add(added('layout', { ...document, name }), `“${name}” was made.`);
  };
  return (
    <>
      <p className="mt-6 flex flex-wrap items-center gap-4 border-t border-rule pt-4">
        <Button needs="plan" variant="main" onClick={() => setBooking(true)}>
          Put on screens
        </Button>
        {partner ? (
          <Button variant="quiet" onClick={() => router.push(`/layouts/${partner.id}`)}>
            Its partner for {other} screens: {partner.name}
          </Button>
        ) : (
          <Button
            needs="plan"
            onClick={() =>
              void add(
                turnedLayout(draft, layout).patch,
                `This is a proposal for ${other} screens. “${layout.name}” stays as it is.`,
              )
            }
          >
            Make one for {other} screens
          </Button>
        )}
        <Button needs="plan" onClick={copy}>
          Copy this layout
        </Button>
        <BookIt content={`layout:${layout.id}`} />
      </p>
      <section className="mt-6">
        <h2 className="text-base">On air</h2>
        <OnAir kind="layout" id={layout.id} />
      </section>
      <section aria-label="Used in" className="mt-6">
        <h2 className="text-base">Used in</h2>
        <UsedIn plan={draft} kind="layout" object={layout} />
      </section>
      <p className="mt-8">
        <Button
          needs="plan"
          variant="grave"
          onClick={() =>
            void edit([removed('layout', layout)], `“${layout.name}” was deleted. Ctrl Z brings it back.`).then(
              (result) => result.ok && router.push('/layouts'),
            )
          }
        >
          Delete this layout
        </Button>
      </p>
      <Sheet open={isBooking} title={`Put ${layout.name} on screens`} onClose={() => setBooking(false)}>
        {isBooking && <BookOn layout={layout} onDone={() => setBooking(false)} />}
      </Sheet>
    </>
  );
}
