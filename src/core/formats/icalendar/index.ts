export { writeCalendar, type CalendarOptions } from './write';
export { readCalendar, type CalendarEvent, type CalendarFile, type LineProblem } from './read';
export { bookingsOf, datesOfEvents, type ImportChoices } from './import';
