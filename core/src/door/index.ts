export * from './door.js';
export * from './door-schema.js';
export * from './roles.js';
