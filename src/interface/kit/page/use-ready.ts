'use client';

import { useSyncExternalStore } from 'react';

const never = () => () => {};

/** Whether the page's script runs yet: before that, a press would be lost, and nothing of this browser is known. */
export const useReady = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
