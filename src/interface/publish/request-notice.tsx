'use client';

import { useEffect, useRef } from 'react';
import { useMay } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { useRequests } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { counted } from '@/interface/kit/words/format';
import type { PublishRequest } from '@/services/editions';
import { answerWords } from './requests';

/** Says on any place that a person asks for a publication, or that the reader's own request was answered. */
export function RequestNotice() {
  const { notify } = useNetwork('notify');
  const zone = useZone();
  const mayPublish = useMay('publish');
  const { list, isHere } = useRequests();
  const before = useRef<ReadonlyMap<string, PublishRequest> | null>(null);
  useEffect(() => {
    if (!isHere) return;
    const known = before.current;
    before.current = new Map(list.map((one) => [one.id, one]));
    if (!known) return;
    for (const one of list) {
      const old = known.get(one.id);
      if (one.yours && one.answer && !old?.answer)
        notify(answerWords(one.answer, zone), one.answer.kind === 'sent-back');
      if (!one.yours && mayPublish && !one.answer && !old)
        notify(`${one.person} asks you to publish ${counted(one.chosen.length, 'change')}.`);
    }
  }, [list, isHere, mayPublish, notify, zone]);
  return null;
}
