import canonicalize from 'canonicalize';

/** The RFC 8785 canonical form of a JSON value. Throws TypeError for what JSON can't hold. */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError('Only JSON values have a canonical form.');
  return text;
}

/**
 * A writer of canonical forms for many documents that share objects: each object is written once, and known again by its
 * identity. What it was given may not change afterwards. Throws TypeError for what JSON can't hold.
 */
export function canonicalWriter(): (value: unknown) => string {
  // Not a weak one: hundreds of thousands of entries in it would keep the collector busy for longer than all else takes.
  const known = new Map<object, string>();
  const write = (value: unknown): string => {
    if (typeof value !== 'object' || value === null) return canonicalJson(value);
    let text = known.get(value);
    if (text === undefined) known.set(value, (text = Array.isArray(value) ? list(value) : members(value)));
    return text;
  };
  const list = (value: readonly unknown[]) => `[${value.map(write).join()}]`;
  const members = (value: object) =>
    `{${Object.entries(value)
      .filter(([, one]) => one !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, one]) => `${canonicalJson(key)}:${write(one)}`)
      .join()}}`;
  return write;
}
