import { createHash, randomBytes } from 'node:crypto';

/** An opaque 256-bit token, and the hash under which it is stored. */
export function newToken(): { token: string; hash: string } {
  const token = randomBytes(32).toString('base64url');
  return { token, hash: tokenHash(token) };
}

export function tokenHash(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
