export * from './load.js';
export * from './standards.js';
