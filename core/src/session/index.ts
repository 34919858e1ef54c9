export * from './describe.js';
export * from './events.js';
export * from './fold.js';
export * from './progress.js';
export * from './record.js';
