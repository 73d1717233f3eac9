import Bowser from 'bowser';
import { counted } from '@/interface/kit/words/format';
import type { Person, TrailLine } from '@/services/people';

/** What a browser or program is called: "Firefox on Linux". Programs that name themselves stay as they are. */
export function agentName(agent: string | null): string {
  if (!agent) return 'a program that does not say its name';
  const { browser, os } = Bowser.parse(agent);
  if (browser.name && os.name) return `${browser.name} on ${os.name}`;
  return agent.slice(0, 40);
}

/** One line of the trail as a sentence without its end. */
export function trailSentence({ by, act, about }: TrailLine): string {
  const who = by ?? 'The command line';
  const whom = about ?? '';
  switch (act) {
    case 'network-made':
      return `${who} made the network ${whom}`;
    case 'signed-in':
      return `${who} logged in`;
    case 'signed-out':
      return `${who} logged out`;
    case 'invited':
      return `${who} invited ${whom}`;
    case 'reset-offered':
      return `${who} made a link for a new password of ${whom}`;
    case 'withdrawn':
      return `${who} withdrew the link for ${whom}`;
    case 'joined':
      return `${who} joined by an invitation`;
    case 'password-set':
      return `${who} set a new password by a link`;
    case 'password-changed':
      return `${who} changed their password`;
    case 'sessions-ended':
      return about ? `${who} logged ${whom} out everywhere` : `${who} logged out another window`;
    case 'enrolment-key-made':
      return `${who} made the enrolment key “${whom}”`;
    case 'player-pin-set':
      return `${who} changed the PIN of the players’ own pages`;
    case 'player-pin-removed':
      return `${who} closed the players’ own pages`;
    case 'enrolment-key-ended':
      return `${who} ended the enrolment key “${whom}”`;
    case 'key-made':
      return `${who} made the key “${whom}”`;
    case 'firers-set':
      return `${who} set who may activate “${whom}”`;
    // What fired it without a person is named behind it.
    case 'cue-fired':
      return by === null ? `A cue was fired: ${whom}` : `${by} fired a cue: ${whom}`;
    case 'cue-ended':
      return by === null ? `A cue was ended: ${whom}` : `${by} ended a cue: ${whom}`;
    case 'board-link-made':
      return `${who} made a link to a board: ${whom}`;
    case 'board-link-ended':
      return `${who} ended the link to a board of ${whom}`;
    case 'board-people-set':
      return `${who} set who may press “${whom}”`;
    case 'key-ended':
      return `${who} deleted the key “${whom}”`;
    case 'role-set':
      return `${who} changed a role: ${whom}`;
    case 'asked-to-publish':
      return `${who} asked to publish`;
    case 'sent-back':
      return `${who} sent a request to publish back to ${whom}`;
    case 'removed':
      return `${who} removed ${whom}`;
  }
}

/** What ends when a person is removed. */
export function removalSentence({ sessions, feeds }: Pick<Person, 'sessions' | 'feeds'>): string {
  const ends = [
    ...(sessions > 0 ? [counted(sessions, 'open window')] : []),
    ...(feeds > 0 ? [counted(feeds, 'calendar feed')] : []),
    'the links that they gave out',
    'their keys',
  ];
  return `These end at once: ${ends.join(', ').replace(/, ([^,]*)$/, ' and $1')}. What they did keeps their name.`;
}
