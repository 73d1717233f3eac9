'use client';

import type { ReactNode } from 'react';
import { Button } from './button';
import { Input } from './field';

interface Props {
  readonly label: string;
  readonly address: string;
  readonly onTold: (text: string, bad?: boolean) => void;
  /** Why it is shown only now. */
  readonly children: ReactNode;
}

/** An address that is a secret, shown once, to be copied to where it is needed. */
export function SecretAddress({ label, address, onTold, children }: Props) {
  return (
    <div role="status" className="border border-tide bg-sheet p-3">
      <p className="text-sm">{children}</p>
      <div className="mt-2 flex gap-2">
        <Input
          readOnly
          aria-label={label}
          className="font-code text-xs"
          value={address}
          onFocus={(event) => event.target.select()}
        />
        <Button
          onClick={() =>
            void navigator.clipboard.writeText(address).then(
              () => onTold('Copied.'),
              () => onTold('This browser doesn’t allow copying. Select the text and copy it yourself.', true),
            )
          }
        >
          Copy
        </Button>
      </div>
    </div>
  );
}
