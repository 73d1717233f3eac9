'use client';

import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import { ZONE_COOKIE } from './zone-cookie';

const Context = createContext('UTC');

/** The zone of the person's own clock. */
export const useZone = () => useContext(Context);

const YEAR_SECONDS = 31_536_000;

/** Starts with the zone that the server wrote its times in, then follows the browser's. */
export function ZoneProvider({ zone: served, children }: { zone: string; children: ReactNode }) {
  const [zone, setZone] = useState(served);
  useEffect(() => {
    const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
    setZone(own);
    document.cookie = `${ZONE_COOKIE}=${encodeURIComponent(own)}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`;
  }, []);
  return <Context value={zone}>{children}</Context>;
}
