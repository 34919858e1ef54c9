export * from './door-schema.js';
export * from './door.js';
export * from './roles.js';
