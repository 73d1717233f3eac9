export { freeName, reschedule, scopesOf, type Occasion, type Rescheduling, type Scope } from './reschedule';
export { copyDays } from './copy';
export { shiftWhen, withoutDate } from './dates';
export { sightings, type Sighting } from './occasions';
export { carried, copyOccasion } from './carry';
export { seasons, type Run, type Season } from './seasons';
