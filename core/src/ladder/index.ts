export * from './graph.js';
export * from './health.js';
export * from './levels.js';
export * from './page.js';
export * from './readiness.js';
export * from './references.js';
export * from './substitutes.js';
