import type { LineProblem } from '@/core/formats/icalendar';

/** What of a file was left out, by line. */
export function Problems({ problems }: { problems: readonly LineProblem[] }) {
  if (problems.length === 0) return null;
  return (
    <ul role="alert" className="max-h-32 overflow-y-auto border-l-2 border-brick pl-3 text-sm text-brick">
      {problems.map(({ line, message }) => (
        <li key={`${line} ${message}`}>
          <span className="font-code text-xs">line {line}</span> {message}
        </li>
      ))}
    </ul>
  );
}
