/** What a difference costs when a substitute is chosen. Starting guesses: only their order of size is argued for. */
export const SUBSTITUTE_COST = {
  otherPattern: 4,
  otherRole: 0.75,
  /** Times the share of muscles that is not common. */
  otherMuscles: 3,
  /** For each level along links, where the same level is wanted. */
  levelOff: 1,
  /** For each link beyond the first. */
  linkAway: 0.5,
  /** For each step of a demand above what the movement in hand asks. */
  asksMore: 0.4,
  otherPosition: 0.75,
  otherKit: 0.5,
  otherSides: 0.25,
  /** A movement at the edge of a limit: allowed, but not the first choice. */
  withCare: 1.5,
  /** Taken off when the lever answers the reason: a steadier base for a wobble. */
  fittingLever: -1,
} as const;
