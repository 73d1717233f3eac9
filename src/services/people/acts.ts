/** What is done with people and their ways in. */
export const ACTS = [
  'network-made',
  'signed-in',
  'signed-out',
  'invited',
  'reset-offered',
  'withdrawn',
  'joined',
  'password-set',
  'password-changed',
  'sessions-ended',
  'key-made',
  'key-ended',
  'firers-set',
  'role-set',
  'asked-to-publish',
  'sent-back',
  'removed',
] as const;
export type TrailAct = (typeof ACTS)[number];
