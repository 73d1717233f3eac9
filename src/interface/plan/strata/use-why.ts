import { useCallback, useState } from 'react';
import type { OutcomeRow } from '@/core/forecast';
import type { Finding } from '@/core/preflight';
import { toInstant, zoneTable, type LocalTime } from '@/core/when';
import { useGo } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { ask } from '@/interface/forecast/client';
import { spanWords } from '../site-clock-words';
import type { AskedWhy } from './foot';

/** Why a screen shows what it shows at a time that was pressed, with the fixes of a gap there. `letGo` is called as another is asked about. */
export function useWhy(findings: readonly Finding[], letGo: () => void) {
  const { draft, drafted } = useNetwork('draft', 'drafted');
  const go = useGo();
  const [asked, setAsked] = useState<AskedWhy | null>(null);
  const index = useIndex(draft);
  const onWhy = useCallback(
    (row: OutcomeRow, time: LocalTime) => {
      const screen = index.screens.get(row.screens[0] ?? '');
      const place = index.sites.get(screen?.site ?? '');
      if (!screen || !place) return;
      const at = toInstant(zoneTable(place.timeZone), time);
      const title = `${screen.name}, ${place.name}, ${spanWords(time, time).replace(/–.*/, '')}:`;
      letGo();
      const [gap] = findings.filter(
        ({ kind, span, screens: of }) =>
          kind === 'gap' && span && of.includes(screen.id) && at >= span[0] && at < span[1],
      );
      const fixes = gap?.fixes ?? [];
      setAsked({ title, explanation: null, fixes });
      go(at);
      void ask(drafted, { kind: 'why', screen: screen.id, at }).then((explanation) =>
        setAsked({ title, explanation, fixes }),
      );
    },
    [drafted, index, go, findings, letGo],
  );
  const forget = useCallback(() => setAsked(null), []);
  return { asked, onWhy, forget };
}
