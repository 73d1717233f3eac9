/** Longer than any word that is looked for, and the letters that it may be off by. */
const LONGEST_WORD = 20;

/** The word of a list that a misspelt one most likely is: at most two letters other, and less than half of them; null for none. */
export function nearestOf(word: string, words: readonly string[]): string | null {
  const written = word.toLowerCase();
  if (written.length < 3 || written.length > LONGEST_WORD || words.includes(written)) return null;
  let best: { word: string; far: number } | null = null;
  for (const known of words) {
    const far = distance(written, known.toLowerCase());
    if (far <= Math.min(2, (known.length - 1) / 2) && (!best || far < best.far)) best = { word: known, far };
  }
  return best?.word ?? null;
}

/** How many letters are to be put in, taken out, changed or exchanged to come from one word to the other. */
function distance(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) =>
    Array.from({ length: b.length + 1 }, (_, j) => (i === 0 ? j : j === 0 ? i : 0)),
  );
  const at = (i: number, j: number) => rows[i]?.[j] ?? Infinity;
  for (let i = 1; i <= a.length; i++)
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let least = Math.min(at(i - 1, j) + 1, at(i, j - 1) + 1, at(i - 1, j - 1) + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        least = Math.min(least, at(i - 2, j - 2) + 1);
      (rows[i] as number[])[j] = least;
    }
  return at(a.length, b.length);
}
