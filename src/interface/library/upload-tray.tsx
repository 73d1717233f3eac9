'use client';

import { X } from 'lucide-react';
import { answered } from '@/interface/data/answered';
import { dismissUploadAction } from '@/web/actions';
import { Bar } from '@/interface/kit/bar';
import { useRefetch, useUploads } from '@/interface/data/queries';

/** A file that this tab is sending, or whose sending was refused. */
export interface Sending {
  readonly key: number;
  readonly name: string;
  /** 0 to 1. */
  readonly share: number;
  readonly refused: string | null;
}

/** Files on their way in: being sent, being worked on, and refused, each with a sentence. */
export function UploadTray({ sending, onDismiss }: { sending: readonly Sending[]; onDismiss: (key: number) => void }) {
  const uploads = useUploads();
  const refetch = useRefetch('uploads');
  if (sending.length + uploads.length === 0) return null;
  return (
    <ul aria-label="Files on their way in" className="mb-5 border border-rule bg-sheet" data-testid="uploads">
      {sending.map(({ key, name, share, refused }) => (
        <Row
          key={`sending-${key}`}
          name={name}
          percent={share * 100}
          words={`sending, ${Math.round(share * 100)} %`}
          error={refused}
          onDismiss={() => onDismiss(key)}
        />
      ))}
      {uploads.map(({ id, name, state, progress, error }) => (
        <Row
          key={id}
          name={name}
          percent={progress}
          words={state === 'waiting' ? 'waits for its turn' : `being measured and prepared, ${progress} %`}
          error={error}
          onDismiss={() => void answered(dismissUploadAction(id)).then(refetch)}
        />
      ))}
    </ul>
  );
}

function Row({
  name,
  percent,
  words,
  error,
  onDismiss,
}: {
  name: string;
  percent: number;
  words: string;
  error: string | null;
  onDismiss: () => void;
}) {
  return (
    <li className="flex items-center gap-4 border-b border-rule px-4 py-2 last:border-b-0">
      <span className="w-56 truncate font-semibold">{name}</span>
      {error ? (
        <>
          <span role="alert" className="flex-1 text-brick">
            {error}
          </span>
          <button type="button" aria-label={`Dismiss ${name}`} onClick={onDismiss} className="p-1 hover:text-tide">
            <X size={16} aria-hidden />
          </button>
        </>
      ) : (
        <div className="flex-1">
          <Bar share={percent / 100} words={words} />
        </div>
      )}
    </li>
  );
}
