/** What came of a correction. */
export const OUTCOMES = ['fixed', 'better', 'same', 'worse'] as const;
export type Outcome = (typeof OUTCOMES)[number];
