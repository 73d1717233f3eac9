import { createHash, randomBytes } from 'node:crypto';

/** An opaque token of 256 bits, and the hash under which it is stored. It begins with no dash: people type it behind an option of the command line. */
export function newToken(): { token: string; hash: string } {
  let token = '-';
  while (token.startsWith('-')) token = randomBytes(32).toString('base64url');
  return { token, hash: tokenHash(token) };
}

export function tokenHash(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
