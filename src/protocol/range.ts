/**
 * Reads a Range header (RFC 9110 section 14.1.2) for a file of `bytes`. One range only: null means "send all", as for a
 * header that is absent, malformed or of several ranges; `outside` means 416. Both ends of the result are inclusive.
 */
export function parseRange(
  header: string | undefined,
  bytes: number,
): { start: number; end: number } | 'outside' | null {
  const match = /^bytes=(\d*)-(\d*)$/.exec(header ?? '');
  if (!match || (match[1] === '' && match[2] === '')) return null;
  if (match[1] === '') {
    const length = Math.min(Number(match[2]), bytes);
    return length === 0 ? 'outside' : { start: bytes - length, end: bytes - 1 };
  }
  const start = Number(match[1]);
  const end = match[2] === '' ? bytes - 1 : Math.min(Number(match[2]), bytes - 1);
  if (match[2] !== '' && Number(match[2]) < start) return null;
  return start >= bytes ? 'outside' : { start, end };
}
