import { slugify } from 'transliteration';

const LONGEST = 60;

/** A readable id for a new plan object, from its name in any script; with a number where `taken` has it. It stays when the name changes. */
export function slugFor(name: string, taken: Iterable<string>): string {
  const base = slugBase(name);
  const used = new Set(taken);
  if (!used.has(base)) return base;
  for (let n = 2; ; n++) if (!used.has(`${base}-${n}`)) return `${base}-${n}`;
}

/** What such an id begins with: it or a number behind it. */
export function slugBase(name: string): string {
  const plain = slugify(name.normalize('NFKC'), { lowercase: true, separator: '-', allowedChars: 'a-zA-Z0-9' });
  return plain.slice(0, LONGEST).replace(/^-+|-+$/g, '') || 'item';
}
