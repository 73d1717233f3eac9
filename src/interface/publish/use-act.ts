'use client';

import { useState } from 'react';
import type { Result } from '@/core/refusal';
import { useNetwork } from '@/interface/data/provider';

/** One thing that is done at a time on the server, and is said when it is, or why it is not. */
export function useAct() {
  const { notify } = useNetwork('notify');
  const [busy, setBusy] = useState(false);
  const act = async <T>(work: Promise<Result<T>>, said: (value: T) => string): Promise<boolean> => {
    setBusy(true);
    const result = await work;
    setBusy(false);
    notify(result.ok ? said(result.value) : result.message, !result.ok);
    return result.ok;
  };
  return { busy, act };
}
