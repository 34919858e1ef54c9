export * from './contacts.js';
export * from './drawing.js';
export * from './figure.js';
export * from './kinematics.js';
export * from './motion.js';
export * from './projection.js';
export * from './skeleton.js';
