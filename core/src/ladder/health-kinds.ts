/** What can be thin or wrong in a library. */
import { COACHING_RULES } from './coaching-rules.js';

export const HEALTH_KINDS = [
  'cycle',
  'dead-end-without-kit',
  'off-ladder',
  'no-easier',
  'demands-missing',
  'no-cues',
  'no-faults',
  'fault-only-words',
  'fault-unseen',
  'only-inward-cues',
  'unreachable-readiness',
  'near-duplicate',
  'figure-shows-more',
  ...COACHING_RULES,
] as const;
export type HealthKind = (typeof HEALTH_KINDS)[number];
