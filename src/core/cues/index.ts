export { firingSchema, readFirings, type Firing } from './firing';
