import equal from 'fast-deep-equal';
import * as z from 'zod';

/**
 * What was written in forms and is not saved yet, kept in the browser for each person: a reload, a lost session or a closed sheet takes
 * nothing of it away. Passwords never come here.
 */

/** What a browser's `localStorage` offers of itself. */
type Shelf = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;

const PREFIX = 'lanternpost.draft';

/** So many drafts of one person are kept, and for so long. */
const MOST = 50;
const KEPT_MS = 30 * 86_400_000;

const draftSchema = z.object({ at: z.number(), values: z.record(z.string(), z.unknown()) });

export interface Draft {
  /** When it was written last, in milliseconds of this browser's clock. */
  readonly at: number;
  /** The fields that were written, by name. */
  readonly values: Readonly<Record<string, unknown>>;
}

/** Whether each field of a draft stands among `values` as it was written. */
export function isAmong(draft: Draft, values: Draft['values']): boolean {
  const plain = JSON.parse(JSON.stringify(values)) as Draft['values'];
  return Object.entries(draft.values).every(([field, value]) => equal(value, plain[field]));
}

/** One person's drafts. `shelf` is null where the browser keeps nothing; what it refuses to keep is not kept. */
export class Drafts {
  constructor(
    private readonly shelf: Shelf | null,
    private readonly person: string,
    private readonly now: () => number = Date.now,
  ) {}

  /** What was begun in a form; null for nothing, or nothing that can be read. */
  read(form: string): Draft | null {
    try {
      const read = draftSchema.safeParse(JSON.parse(this.shelf?.getItem(this.name(form)) ?? 'null'));
      return read.success && this.now() - read.data.at < KEPT_MS ? read.data : null;
    } catch {
      return null;
    }
  }

  write(form: string, values: Draft['values']): void {
    try {
      this.shelf?.setItem(this.name(form), JSON.stringify({ at: this.now(), values }));
      this.clear();
    } catch {
      // Full, or not allowed: a form works without.
    }
  }

  drop(form: string): void {
    try {
      this.shelf?.removeItem(this.name(form));
    } catch {
      // Not allowed: then nothing was kept either.
    }
  }

  /** Drops what was begun in a form if it is all among `values`, which are saved now: what was written since stays. */
  dropSaved(form: string, values: Draft['values']): void {
    const draft = this.read(form);
    if (draft && isAmong(draft, values)) this.drop(form);
  }

  private name(form: string): string {
    return `${PREFIX} ${this.person} ${form}`;
  }

  /** Takes away what is old, and the oldest of what is too many. */
  private clear(): void {
    const forms = Array.from({ length: this.shelf?.length ?? 0 }, (_, i) => this.shelf?.key(i) ?? '')
      .filter((key) => key.startsWith(this.name('')))
      .map((key) => key.slice(this.name('').length));
    const dated = forms.map((form) => ({ form, at: this.read(form)?.at ?? -Infinity })).sort((a, b) => b.at - a.at);
    for (const [i, { form, at }] of dated.entries()) if (i >= MOST || at === -Infinity) this.drop(form);
  }
}
