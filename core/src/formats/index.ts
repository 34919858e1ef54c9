export * from './because.js';
export * from './card.js';
export * from './client-file.js';
export * from './csv.js';
export * from './message.js';
export * from './pack.js';
export * from './sets.js';
export * from './sheet.js';
