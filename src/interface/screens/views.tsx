import Link from 'next/link';

/** The ways to look at all screens, and what belongs to them. */
const VIEWS = [
  ['By site', '/screens'],
  ['Table', '/screens/table'],
  ['Map', '/screens/map'],
  ['Pictures', '/screens/pictures'],
  ['Waiting players', '/screens/tray'],
  ['Profiles', '/screens/profiles'],
] as const;

/** Leads from one view of the screens to the others. */
export function ScreenViews({ here }: { here: (typeof VIEWS)[number][1] }) {
  return (
    <nav aria-label="Views of the screens" className="flex flex-wrap gap-x-4">
      {VIEWS.map(([name, path]) => (
        <Link
          key={path}
          href={path}
          aria-current={path === here ? 'page' : undefined}
          className={`py-0.5 ${path === here ? 'border-b-2 border-dusk' : 'text-tide hover:underline'}`}
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}
