/** The browser's own storage; null where it is not allowed. */
export function browserShelf(): Storage | null {
  try {
    return localStorage;
  } catch {
    return null;
  }
}
