export { firstTimes, whenOf, type FirstTime } from './becomes';
export { writeCalendar, type CalendarOptions } from './write';
export type { CalendarEvent, LineProblem } from './event';
export { readCalendar, type CalendarFile } from './read';
export { bookingsOf, datesOfEvents, type ImportChoices } from './import';
