'use client';

import Link from 'next/link';
import { useFileTrouble } from '@/interface/data/queries';
import { counted } from '@/interface/kit/words/format';

/** Stored files that are damaged or lost, and what repairs them. Nothing where all is well. */
export function FileTroubleNote() {
  const trouble = useFileTrouble();
  if (!trouble || (trouble.store === null && trouble.damaged.length === 0)) return null;
  const { store, damaged } = trouble;
  return (
    <section
      role="alert"
      aria-label="Damaged files"
      className="mb-4 border-l-4 border-brick bg-brick/10 px-4 py-3 text-sm"
    >
      {store !== null && <p>{store}</p>}
      {damaged.length > 0 && (
        <>
          <p>
            {damaged.length === 1 ? '1 file is' : `${counted(damaged.length, 'file')} are`} damaged or missing on the
            server. Upload the same {damaged.length === 1 ? 'file' : 'files'} again to repair{' '}
            {damaged.length === 1 ? 'it' : 'them'}. Screens that already have a good copy keep playing it.
          </p>
          <ul className="mt-1 flex flex-wrap gap-x-4">
            {damaged.map(({ id, name }) => (
              <li key={id}>
                <Link href={`/library/${id}`} className="underline">
                  {name}
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
