export * from './client-on-day.js';
export * from './client.js';
export * from './history.js';
export * from './pain.js';
export * from './screening.js';
export * from './studio.js';
