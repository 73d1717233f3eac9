'use client';

import { useNetwork } from '@/interface/data/provider';

export function NoticeLine() {
  const { notice } = useNetwork('notice');
  return (
    <div aria-live="polite" className="pointer-events-none fixed inset-x-0 bottom-24 z-50 flex justify-center">
      {notice && (
        <p
          role={notice.bad ? 'alert' : 'status'}
          className={`cut-small max-w-2xl px-5 py-2.5 ${notice.bad ? 'bg-brick text-paper' : 'bg-ink text-paper'}`}
        >
          {notice.text}
        </p>
      )}
    </div>
  );
}
