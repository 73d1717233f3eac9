/** What our own words mean, in the sentences of the guide (docs/guide.md); a test holds the two together. */
export const GLOSSARY = {
  edition: 'everything that was published at once, with a number',
  takeover: 'a booking that goes ahead of all priorities, prepared for urgent messages and activated when needed',
  backdrop: 'what shows when nothing is booked: the screen’s own, else its site’s, else the network’s',
  pilot: 'an edition that some screens get first, before all others',
  pass: 'once through a playlist, from the first item to the last',
} as const;

export type OwnWord = keyof typeof GLOSSARY;
