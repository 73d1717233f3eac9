'use client';

import Link from 'next/link';
import { Only } from '@/interface/data/may';

/** Leads to a new booking of a content, as `contentValue` writes it. */
export const BookIt = ({ content }: { content: string }) => (
  <Only needs="plan">
    <Link
      href={`/plan?what=${encodeURIComponent(content)}`}
      className="inline-block py-1 text-tide underline underline-offset-2"
    >
      Book it
    </Link>
  </Only>
);
