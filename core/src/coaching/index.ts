export * from './correct.js';
export * from './evidence.js';
export * from './pain.js';
export * from './stand.js';
export * from './teach.js';
