import { loopLength, type NeverShown } from '@/core/forecast';
import { knownContent, objectIn, type Booking, type Plan } from '@/core/plan';

/** So many bookings that are ahead of one are named. */
const MOST_NAMED = 3;

/** Why a booking shows on none of its screens in the days that are looked at, and what to do about it. */
export function whyNotWords(
  { because, hiddenBy }: Pick<NeverShown, 'because' | 'hiddenBy'>,
  booking: Booking,
  plan: Plan,
): string {
  switch (because) {
    case 'on hold':
      return booking.takeover
        ? 'It is prepared, and shows when it is activated.'
        : 'It is on hold, so no screen shows it. Take off “on hold” when it should show.';
    case 'archived':
      return 'What it shows is archived. Take it out of the archive, or choose something else.';
    case 'waits for its cue':
      return 'It waits for its cue, and shows when that is fired.';
    case 'no time':
      return 'It has no time in these days.';
    case 'no screen':
      return 'Nothing in it is for these screens.';
    case 'nothing to show':
      return isEmpty(booking, plan)
        ? 'Nothing is in its playlist. Put something into it.'
        : 'Nothing in it is available at that time. Check when its files are available.';
    case 'hidden':
      return hiddenWords(hiddenBy, plan);
    case 'never its turn':
    case 'not used':
      return 'It shows on no screen in these days.';
  }
}

function isEmpty({ content }: Booking, plan: Plan): boolean {
  const known = knownContent(content);
  return known.kind === 'playlist' && loopLength(plan, objectIn(plan, 'playlist', known.id)?.items ?? []) === 0;
}

function hiddenWords(hiddenBy: readonly string[], plan: Plan): string {
  if (hiddenBy.length > 0 && hiddenBy.every((id) => id === 'lights-out'))
    return 'Its screens are off all that time. Change its hours, or the lights-out hours of the screens.';
  const names = hiddenBy
    .filter((id) => id !== 'lights-out')
    .map((id) => `“${objectIn(plan, 'booking', id)?.name ?? id}”`);
  const dark = names.length < hiddenBy.length ? ', but for hours in which its screens are off' : '';
  if (names.length === 0)
    return 'It shows on no screen in these days, because something else goes ahead of it the whole time.';
  const named =
    names.slice(0, MOST_NAMED).join(', ') + (names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : '');
  return `It shows on no screen in these days, because ${named} ${names.length === 1 ? 'goes' : 'go'} ahead of it the whole time${dark}.`;
}
