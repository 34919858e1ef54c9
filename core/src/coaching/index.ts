export * from './correct.js';
export * from './evidence.js';
export * from './evidence-schema.js';
export * from './likelihood.js';
export * from './outcomes.js';
export * from './stand.js';
export * from './teach.js';
export { HALF_LIFE_DAYS } from './weights.js';
