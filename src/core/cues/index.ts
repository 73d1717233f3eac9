export { firingSchema, readFirings, type Firing, type KnownFiring } from './firing';
