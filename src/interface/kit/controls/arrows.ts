/** Where an arrow leads from a place among so many; null for other keys. At the ends it stays. */
export function arrowTo(key: string, at: number, count: number): number | null {
  switch (key) {
    case 'ArrowLeft':
    case 'ArrowUp':
      return Math.max(0, at - 1);
    case 'ArrowRight':
    case 'ArrowDown':
      return Math.min(count - 1, at + 1);
    case 'Home':
      return 0;
    case 'End':
      return count - 1;
    default:
      return null;
  }
}
