export * from './instant';
export * from './plan';
export * from './selector';
export * from './when';
export * from './forecast';
export * from './booking';
export * from './edition';
export * from './preflight';
