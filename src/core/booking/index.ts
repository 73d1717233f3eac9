export { freeName, reschedule, type Occasion, type Rescheduling, type Scope } from './reschedule';
export { copyDays } from './copy';
export { shiftWhen } from './dates';
