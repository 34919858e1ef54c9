export * from './door.js';
export * from './roles.js';
