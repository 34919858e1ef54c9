/** The last weeks of somebody as bars: how often they came. */
import { dayNumber } from '../words/dates';
import { say } from '../words/say';

const WEEKS = 8;
const [STEP, TALLEST, MOST] = [9, 24, 4] as const;

/** Visits in each of the last weeks, the latest last. */
export const weeksOf = (came: readonly string[], now: Date): number[] => {
  const counts = new Array<number>(WEEKS).fill(0);
  for (const iso of came) {
    const week = WEEKS - 1 - Math.floor((dayNumber(now) - dayNumber(new Date(iso))) / 7);
    if (week >= 0 && week < WEEKS) counts[week] = (counts[week] ?? 0) + 1;
  }
  return counts;
};

export function WeeksLine({ came, now }: { came: readonly string[]; now: Date }) {
  const counts = weeksOf(came, now);
  return (
    <svg
      width={WEEKS * STEP}
      height={TALLEST + 2}
      role="img"
      aria-label={say.people.sessionsInWeeks(came.length, WEEKS, counts.join(', '))}
    >
      {counts.map((count, i) => {
        const height = (Math.min(count, MOST) / MOST) * TALLEST;
        return (
          <rect
            key={i}
            x={i * STEP}
            y={TALLEST - height}
            width={STEP - 3}
            height={Math.max(height, 0) + 2}
            fill={count > 0 ? 'currentColor' : 'var(--color-base-300)'}
          />
        );
      })}
    </svg>
  );
}
