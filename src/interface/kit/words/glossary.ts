/** What our own words mean, in the sentences of the guide (docs/guide.md); a test holds the two together. */
export const GLOSSARY = {
  rail: 'the strip of time at the bottom of each page: drag it to look at another moment',
  docket: 'the list of changes that aren’t published yet, on Publish',
  edition: 'everything that was published at once, with a number',
  takeover: 'a booking that goes ahead of all priorities, prepared for urgent messages and activated when needed',
  backdrop: 'what shows when nothing is booked: the screen’s own, else its site’s, else the network’s',
  weave: 'to mix a booking in between the items that are showing anyway, for a share of the time',
  cue: 'something that a button, a key, a touch or a program fires, and that bookings wait for',
  pilot: 'an edition that some screens get first, before all others',
  pass: 'once through a playlist, from the first item to the last',
} as const;

export type OwnWord = keyof typeof GLOSSARY;
