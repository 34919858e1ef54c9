export * from './come-back.js';
export * from './fit.js';
export * from './held.js';
export * from './next-step.js';
export * from './next-time.js';
export * from './reason.js';
export * from './replacement.js';
export * from './standing.js';
