const YEAR_SECONDS = 31_536_000;

/** Changes between day and night, and keeps the choice in this browser. */
export function toggleTheme(): void {
  const root = document.documentElement;
  const next = root.dataset.theme === 'dark' ? 'light' : 'dark';
  root.dataset.theme = next;
  document.cookie = `lanternpost-theme=${next}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`;
}
