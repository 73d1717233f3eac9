/** By what people tell apart the players that wait for a screen: a colour on each glass. */

/** Colours far apart from each other, with the colour of the text on them, and names for people who don't see colours. */
const MARKS = [
  { name: 'amber', colour: '#e3a008', ink: '#10151d' },
  { name: 'green', colour: '#1f7a4d', ink: '#ffffff' },
  { name: 'pink', colour: '#f3a6c8', ink: '#10151d' },
  { name: 'blue', colour: '#1d4ed8', ink: '#ffffff' },
  { name: 'white', colour: '#f5f5f4', ink: '#10151d' },
  { name: 'red', colour: '#b3261e', ink: '#ffffff' },
  { name: 'cyan', colour: '#7fd6e0', ink: '#10151d' },
  { name: 'violet', colour: '#6d28d9', ink: '#ffffff' },
] as const;

/** The mark of a waiting player by its number, which counts from 1. */
export const markOf = (number: number): (typeof MARKS)[number] => MARKS[(number - 1) % MARKS.length] ?? MARKS[0];
