export * from './aim.js';
export * from './tempo.js';
