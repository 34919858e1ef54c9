export * from './atoms.js';
export * from './json.js';
export * from './problem.js';
