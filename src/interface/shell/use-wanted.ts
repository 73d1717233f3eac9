'use client';

import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useRef } from 'react';

/**
 * What an address asks of its place besides (`/plan?booking=…`): done once, and then taken out of the address, so that going back
 * or reloading does not do it again.
 */
export function useWanted(act: (wanted: URLSearchParams) => void): void {
  const params = useSearchParams();
  const path = usePathname();
  const router = useRouter();
  const newest = useRef(act);
  useEffect(() => {
    newest.current = act;
  }, [act]);
  const text = params.toString();
  useEffect(() => {
    if (text === '') return;
    newest.current(new URLSearchParams(text));
    router.replace(path);
  }, [text, path, router]);
}
