import { useRef, useState } from 'react';

/** Which items are chosen for what is done to several at once; with Shift from the last that was chosen on. Those that are gone are none. */
export function useChosen(rows: readonly { readonly key: string }[]) {
  const [keys, setKeys] = useState<ReadonlySet<string>>(new Set());
  const last = useRef(0);
  const choose = (index: number, on: boolean, upTo: boolean) => {
    const [from, to] = upTo ? [Math.min(last.current, index), Math.max(last.current, index)] : [index, index];
    last.current = index;
    const next = new Set(keys);
    for (const { key } of rows.slice(from, to + 1)) {
      if (on) next.add(key);
      else next.delete(key);
    }
    setKeys(next);
  };
  const chosen = new Set(rows.map(({ key }) => key).filter((key) => keys.has(key)));
  return { chosen, choose, letGo: () => setKeys(new Set()) };
}
