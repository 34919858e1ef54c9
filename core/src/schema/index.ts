export * from './atoms.js';
export * from './json.js';
export * from './part.js';
export * from './problem.js';
