/** The words of a card, about as large as they fit into their box with their own line breaks: so displays draw them. */
export function CardWords({ words }: { words: string }) {
  const lines = words.split('\n');
  const longest = Math.max(1, ...lines.map(({ length }) => length));
  return (
    <span className="block h-full w-full bg-[#1b2330] text-[#fff] [container-type:size]">
      <span
        className="flex h-full items-center justify-center text-center leading-tight whitespace-pre-line"
        style={{ fontSize: `min(${70 / lines.length}cqh, ${160 / longest}cqw)` }}
      >
        {words}
      </span>
    </span>
  );
}
