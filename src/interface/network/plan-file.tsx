'use client';

import { rollup } from 'd3-array';
import { useRef, useState } from 'react';
import { kindOf } from '@/core/plan';
import type { Problem } from '@/core/refusal';
import { WhyNot, useMay } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import type { PlanChange, PlanLook } from '@/services/plan';

/** So many problems are listed. */
const SHOWN = 20;

interface Looked {
  readonly file: File;
  readonly look: PlanLook;
}

interface Wrong {
  readonly message: string;
  readonly problems: readonly Problem[];
}

/** The whole plan as a file: taken away, and read back after one has seen what that changes. */
export function PlanFile() {
  const { draft, notify } = useNetwork('draft', 'notify');
  const mayPlan = useMay('plan');
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [looked, setLooked] = useState<Looked | null>(null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const ask = async <T,>(method: 'POST' | 'PUT', file: File, query = ''): Promise<T | null> => {
    setBusy(true);
    setWrong(null);
    try {
      const response = await fetch(`/api/plan${query}`, { method, body: file });
      const answer = (await response.json()) as unknown;
      if (response.ok) return answer as T;
      const { title, errors = [] } = answer as { title: string; errors?: Problem[] };
      setWrong({ message: title, problems: errors });
    } catch {
      setWrong({ message: 'The server didn’t answer. Check the network, then try again.', problems: [] });
    } finally {
      setBusy(false);
    }
    return null;
  };
  const lookAt = async (file: File) => {
    setLooked(null);
    const look = await ask<PlanLook>('POST', file);
    if (look) setLooked({ file, look });
  };
  const takeOver = async ({ file, look }: Looked) => {
    const made = await ask<{ changes: number }>('PUT', file, `?seen=${look.change}`);
    if (!made) return;
    setLooked(null);
    notify(
      `${counted(made.changes, 'change')} made from “${file.name}”. Ctrl Z undoes ${made.changes === 1 ? 'it' : 'them'}.`,
    );
  };
  return (
    <section aria-labelledby="plan-file" className="mt-8 border-t border-rule pt-5">
      <h2 id="plan-file" className="text-lg">
        Plan file
      </h2>
      <p className="mt-1 text-faint">
        Your whole plan in one file, with unpublished changes, to keep or to edit in another program. It doesn’t contain
        pictures and videos.
      </p>
      <p className="mt-3 flex flex-wrap items-center gap-3">
        <a
          href="/api/plan"
          download={`${draft.network.name.replace(/[^\p{L}\p{Nd}]+/gu, '-')}-plan.json`}
          className="border border-rule bg-sheet px-3 py-1.5 hover:border-ink"
        >
          Download the plan
        </a>
        {mayPlan && (
          <Button disabled={busy} onClick={() => input.current?.click()}>
            {busy ? 'Reading…' : 'Read a plan file…'}
          </Button>
        )}
      </p>
      <WhyNot needs="plan" />
      <input
        ref={input}
        type="file"
        aria-label="A plan file"
        accept=".json,application/json"
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          const file = target.files?.[0];
          if (file) void lookAt(file);
          // The same file can be chosen again once it was changed.
          target.value = '';
        }}
      />
      {wrong && <Problems wrong={wrong} />}
      {looked && (
        <div className="mt-4" data-testid="plan-look">
          <h3 className="font-semibold">
            {looked.look.count === 0
              ? `“${looked.file.name}” is the same as your plan. There’s nothing to change.`
              : `“${looked.file.name}” makes ${counted(looked.look.count, 'change')}: ${sums(looked.look)}`}
          </h3>
          <Changes look={looked.look} />
          {looked.look.count > 0 && (
            <p className="mt-3 flex flex-wrap items-center gap-3">
              <Button variant="main" needs="plan" disabled={busy} onClick={() => void takeOver(looked)}>
                Make {counted(looked.look.count, 'change')}
              </Button>
              <Button variant="quiet" onClick={() => setLooked(null)}>
                Cancel
              </Button>
              <span className="text-sm text-faint">No screen changes until you publish.</span>
            </p>
          )}
        </div>
      )}
    </section>
  );
}

/** "2 bookings added, 1 screen removed". */
function sums({ changes, count }: PlanLook): string {
  const groups = rollup(
    changes,
    (list) => list.length,
    ({ kind, what }) => `${kindOf(kind).noun}\n${what}`,
  );
  const said = [...groups].map(([key, n]) => {
    const [noun = '', what = ''] = key.split('\n');
    return `${noun === 'network' ? 'the network' : counted(n, noun)} ${what}`;
  });
  return `${said.join(', ')}${count > changes.length ? `, and ${count - changes.length} more` : ''}.`;
}

function Changes({ look: { changes } }: { look: PlanLook }) {
  if (changes.length === 0) return null;
  return (
    <ul aria-label="What the file changes" className="mt-2 max-h-80 overflow-y-auto border border-rule bg-sheet">
      {changes.map((one) => (
        <Row key={`${one.kind} ${one.id}`} change={one} />
      ))}
    </ul>
  );
}

const Row = ({ change: { kind, name, what, sentences } }: { change: PlanChange }) => (
  <li className="border-b border-rule/60 px-3 py-1.5 last:border-b-0">
    <span className="text-faint">{kindOf(kind).noun}</span> <strong>{name}</strong> {what}
    {sentences.length > 0 && <span className="block text-sm text-faint">{sentences.join(' · ')}</span>}
  </li>
);

function Problems({ wrong: { message, problems } }: { wrong: Wrong }) {
  return (
    <div role="alert" className="mt-3 text-brick">
      <p>{message}</p>
      <ul className="mt-1 list-disc pl-5 text-sm">
        {problems.slice(0, SHOWN).map(({ path, message: what }) => (
          <li key={`${path} ${what}`}>
            {path && <code className="font-code text-xs">{path}</code>} {what}
          </li>
        ))}
      </ul>
      {problems.length > SHOWN && <p className="text-sm">And {problems.length - SHOWN} more.</p>}
    </div>
  );
}
