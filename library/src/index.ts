export * from './figures.js';
export * from './load.js';
export * from './standards.js';
export * from './stills.js';
