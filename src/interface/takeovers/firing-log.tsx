'use client';

import { useZone } from '@/interface/data/zone';
import { counted, dateTime } from '@/interface/kit/words/format';
import type { Firing } from '@/services/editions';
import { FiringScreens } from './firing-screens';
import { byWhom } from './words';

/** What was fired and is over: who, when, and which screens showed it from when to when, as their players told it. */
export function FiringLog({ firings }: { firings: readonly Firing[] }) {
  if (firings.length === 0) return null;
  return (
    <section aria-labelledby="fired" className="mt-10">
      <h2 id="fired" className="text-lg">
        Activated before
      </h2>
      <ul className="mt-2">
        {firings.map((firing) => (
          <LogRow key={firing.id} firing={firing} />
        ))}
      </ul>
    </section>
  );
}

function LogRow({ firing }: { firing: Firing }) {
  const zone = useZone();
  const { name, drill, firedAt, firedBy, byKey, until, clearedAt, clearedBy, clearedByKey, screens, showed } = firing;
  const ended =
    clearedAt === null || (until !== null && until < clearedAt)
      ? `ended by itself ${until === null ? '' : dateTime(Date.parse(until), zone)}`
      : `all-clear ${dateTime(Date.parse(clearedAt), zone)} by ${byWhom(clearedBy, clearedByKey)}`;
  return (
    <li className="border-t border-rule py-2">
      <p>
        <span className="font-semibold">{name}</span>
        {drill && <span className="ml-2 text-sm text-faint">drill</span>}
      </p>
      <p className="text-sm text-faint">
        activated {dateTime(Date.parse(firedAt), zone)} by {byWhom(firedBy, byKey)}; {ended}
      </p>
      {showed === 0 ? (
        <p className="text-sm">None of {counted(screens, 'screen')} said that it showed it.</p>
      ) : (
        <FiringScreens
          firing={firing}
          only={({ from }) => from !== null}
          title={`${showed} of ${counted(screens, 'screen')} showed it`}
        />
      )}
    </li>
  );
}
