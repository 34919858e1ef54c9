export * from './aim.js';
export * from './load-schema.js';
export * from './loads.js';
export * from './next-set.js';
export * from './parts.js';
export * from './reason.js';
export * from './strength.js';
export * from './tempo.js';
