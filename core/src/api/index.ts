export * from './json-schema.js';
export * from './operations.js';
