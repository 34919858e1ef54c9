export * from './clean.js';
export * from './figure-series.js';
export * from './points.js';
export * from './read.js';
export * from './reps.js';
export * from './stand.js';
