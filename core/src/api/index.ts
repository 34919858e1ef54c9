export * from './operations.js';
export * from './json-schema.js';
