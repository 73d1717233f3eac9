import type { ObjectKey } from '@/core/plan';
import { never } from '@/core/refusal';

/** The address of the place where an object of the plan is looked at and changed. */
export function pathTo({ kind, id }: ObjectKey): string {
  const written = encodeURIComponent(id);
  switch (kind) {
    case 'network':
      return '/network';
    case 'calendar':
      return '/plan?open=calendars';
    case 'media':
      return `/library/${written}`;
    case 'layout':
      return `/layouts/${written}`;
    case 'bulletin':
      return '/plan';
    case 'cue':
      return `/cues?cue=${written}`;
    case 'board':
      return `/cues?board=${written}`;
    case 'playlist':
      return `/playlists/${written}`;
    case 'profile':
      return `/screens/profiles?open=${written}`;
    case 'site':
      return `/screens?site=${written}`;
    case 'screen':
      return `/screens?screen=${written}`;
    case 'booking':
      return `/plan?booking=${written}`;
    default:
      return never(kind);
  }
}
