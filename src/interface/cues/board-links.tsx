'use client';

import { QRCodeSVG } from 'qrcode.react';
import { useState } from 'react';
import type { Board } from '@/core/plan';
import type { BoardLink } from '@/services/cues';
import { answered } from '@/interface/data/answered';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useRefetch } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { SecretAddress } from '@/interface/kit/controls/secret-address';
import { timeNear } from '@/interface/kit/words/format';
import { endBoardLinkAction, makeBoardLinkAction } from '@/web/actions';

/** Links that open one board without logging in, each for one person or one place; each can be ended. */
export function BoardLinks({ board, links }: { board: Board; links: readonly BoardLink[] }) {
  const { notify } = useNetwork('notify');
  const { now } = useMoment();
  const zone = useZone();
  const refetch = useRefetch('cues');
  const [name, setName] = useState('');
  const [made, setMade] = useState<{ readonly name: string; readonly token: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const make = async () => {
    const result = await answered(makeBoardLinkAction({ board: board.id, name: name.trim() }));
    if (!result.ok) return setProblem(result.message);
    setMade({ name: name.trim(), token: result.value.token });
    setName('');
    setProblem(null);
    refetch();
  };
  const end = async ({ id, name: whose }: BoardLink) => {
    const result = await answered(endBoardLinkAction(id));
    refetch();
    notify(result.ok ? `The link for ${whose} no longer opens anything.` : result.message, !result.ok);
  };
  const address = made && `${location.origin}/board#${made.token}`;
  return (
    <>
      <p className="text-faint">
        A link opens this board and nothing else. Everyone who has it can press its buttons without logging in. Make one
        for each person or place, so that you can end it alone.
      </p>
      <form
        className="mt-4 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <Field label="For whom or where" error={problem ?? undefined} className="flex-1">
          <Input
            value={name}
            placeholder="Steward, deck 5"
            maxLength={200}
            onChange={({ target }) => setName(target.value)}
          />
        </Field>
        <Button type="submit" needs="operate" variant="main">
          Make a link
        </Button>
      </form>
      {made && address !== null && (
        <div className="mt-4">
          <SecretAddress label="Link to the board" address={address} onTold={notify}>
            For {made.name}: scan the code with the phone, or send the link. It is shown only now.
          </SecretAddress>
          {/* Cameras need a white margin around it, by night too. */}
          <QRCodeSVG
            value={address}
            size={240}
            marginSize={4}
            title={`QR code of the link for ${made.name}`}
            className="mt-3"
          />
        </div>
      )}
      <h3 className="mt-6 text-base">Links</h3>
      {links.length === 0 && <p className="text-faint">None yet.</p>}
      <ul>
        {links.map((link) => (
          <li key={link.id} className="flex flex-wrap items-center gap-x-3 border-t border-rule py-2">
            <span className="font-semibold">{link.name}</span>
            <span className="text-sm text-faint">
              {link.usedAt === null ? 'never opened' : `last opened ${timeNear(Date.parse(link.usedAt), now, zone)}`}
              {link.madeBy !== null && `, made by ${link.madeBy}`}
            </span>
            <Button
              needs="operate"
              variant="quiet"
              className="ml-auto"
              aria-label={`End the link for ${link.name}`}
              onClick={() => void end(link)}
            >
              End it
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}
