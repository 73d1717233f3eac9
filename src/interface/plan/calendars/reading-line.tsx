'use client';

import { Button } from '@/interface/kit/controls/button';
import { Bar } from '@/interface/kit/controls/bar';
import type { Reading } from './use-calendar-file';

/** How far the reading of a file is, until it is done; it can be broken off. */
export function ReadingLine({ reading, onCancel }: { reading: Reading; onCancel: () => void }) {
  if (reading.state === 'failed')
    return (
      <p role="alert" className="text-brick">
        This file can’t be read. Check that it is a calendar file, or export a shorter span.
      </p>
    );
  if (reading.state !== 'reading') return null;
  return (
    <Bar share={reading.share} words={`Reading the file, ${Math.round(reading.share * 100)} %`}>
      <Button onClick={onCancel}>Cancel</Button>
    </Bar>
  );
}
