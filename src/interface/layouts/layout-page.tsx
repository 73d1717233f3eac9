'use client';

import Link from 'next/link';
import { useNetwork } from '@/interface/data/provider';
import { Empty } from '@/interface/kit/controls/empty';
import { LayoutEditor } from './layout-editor';

export function LayoutById({ id }: { id: string }) {
  const { draft } = useNetwork('draft');
  const layout = draft.layouts.find((one) => one.id === id);
  if (layout) return <LayoutEditor key={layout.id} layout={layout} />;
  return (
    <Empty
      title="No such layout"
      action={
        <Link href="/layouts" className="text-tide underline">
          See all layouts
        </Link>
      }
    >
      It may have been deleted. Ctrl Z brings back what you deleted yourself.
    </Empty>
  );
}
