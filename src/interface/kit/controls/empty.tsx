import type { ReactNode } from 'react';

/** What an empty place teaches: the next step, in one sentence with one action. */
export function Empty({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <div className="mx-auto mt-16 mb-8 max-w-md text-center">
      <h2 className="text-2xl">{title}</h2>
      <p className="mt-2 text-faint">{children}</p>
      {action && <div className="mt-5 flex justify-center">{action}</div>}
    </div>
  );
}
