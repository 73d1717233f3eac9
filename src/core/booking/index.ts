export { nameAmong, reschedule, scopesOf, type Occasion, type Rescheduling, type Scope } from './reschedule';
export { copyDays } from './copy';
export { shiftWhen, withoutDate } from './dates';
export { localOccasions, type LocalOccasion } from './local-occasions';
export { carried, copyOccasion } from './carry';
export { seasons, type Run, type Season } from './seasons';
export { drillOf, inForce, isPrepared } from './takeover';
export { putOnOf, putOnsIn, puttingOn, type PutOn } from './put-on';
