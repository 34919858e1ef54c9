export * from './correct.js';
export * from './evidence.js';
export * from './pain.js';
export * from './screening.js';
export * from './stand.js';
export * from './teach.js';
