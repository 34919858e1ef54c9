/**
 * Tests: something measured in a session by a protocol that stays the same, so that it can be compared over the weeks. What comes out is kept by
 * the session, and stands among the benchmarks that were noted by hand.
 */
import { text, whole, words } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { type Benchmark, BENCHMARK_UNITS, benchmarkSchema } from './screening.js';

export const testSchema = z.strictObject({
  name: text(60),
  /** What is measured: reps, seconds, metres, or the weight for the reps of the line. */
  unit: z.enum(BENCHMARK_UNITS, 'must be reps, s, kg or m'),
  /** Whole seconds after which it ends; null where it ends with the first that is not clean. */
  seconds: whole(5, 1800).nullable(),
  /** What counts as clean, and how it is done. */
  clean: words(200),
});
export type Test = z.infer<typeof testSchema>;

/** What came out of a test. */
export const testResultSchema = benchmarkSchema.extend({
  movementId: z.string(),
  seconds: z.number().nullable(),
  clean: z.string(),
});
export type TestResult = z.infer<typeof testResultSchema>;

export interface KnownTest extends Test {
  movementId: string;
  /** Reps of the set, where the weight is measured. */
  amount?: number;
}

/** Tests that are offered. Own ones are made from any line. */
export const USUAL_TESTS: readonly KnownTest[] = [
  {
    name: 'Clean push-ups in a row',
    movementId: 'push-up',
    unit: 'reps',
    seconds: null,
    clean: 'Chest to 5 cm above the floor, arms straight at the top, body in one line. No pause longer than a breath.',
  },
  {
    name: 'Plank',
    movementId: 'forearm-plank',
    unit: 's',
    seconds: null,
    clean: 'Head, hips and heels in one line, breathing on. It ends when the hips sink or lift.',
  },
  {
    name: 'Side plank',
    movementId: 'side-plank',
    unit: 's',
    seconds: null,
    clean: 'Hips high and facing forward, each side by itself; the weaker side counts.',
  },
  {
    name: 'Chair stands in 30 s',
    movementId: 'sit-to-stand',
    unit: 'reps',
    seconds: 30,
    clean: 'Arms crossed on the chest. Stand up fully, sit down fully; a rep that is half up at the end counts.',
  },
  {
    name: 'Heel raises on one leg',
    movementId: 'single-leg-heel-raise',
    unit: 'reps',
    seconds: null,
    clean: 'A fingertip on the wall, knee straight, each one as high as the first; the weaker side counts.',
  },
  {
    name: 'Dead hang',
    movementId: 'dead-hang',
    unit: 's',
    seconds: null,
    clean: 'Both hands, feet off the floor, shoulders away from the ears.',
  },
  {
    name: 'Goblet squat for five',
    movementId: 'goblet-squat',
    unit: 'kg',
    amount: 5,
    seconds: null,
    clean: 'The heaviest weight for five clean reps, thighs level at the bottom; two sets to warm up before it.',
  },
];

/** Tests of a movement: those that were done before, and the usual ones. */
export function testsOf(movementId: string, results: readonly TestResult[]): KnownTest[] {
  const own = results
    .filter((one) => one.movementId === movementId)
    .map(({ name, unit, seconds, clean }): KnownTest => ({ name, unit, seconds, clean, movementId }));
  const all = [...USUAL_TESTS.filter((one) => one.movementId === movementId), ...own];
  return all.filter(({ name }, i) => all.findIndex((one) => one.name === name) === i);
}

/** Everything that was measured, by name, earliest first: in sessions and by hand. On one day the better one stands. */
export function measured(
  noted: readonly Benchmark[],
  results: readonly TestResult[],
): Map<string, (Benchmark | TestResult)[]> {
  const groups = new Map<string, (Benchmark | TestResult)[]>();
  for (const one of [...noted, ...results].toSorted((a, b) => a.on.localeCompare(b.on))) {
    const all = groups.get(one.name) ?? [];
    const same = all.findIndex(({ on, unit }) => on === one.on && unit === one.unit);
    const before = all[same];
    groups.set(one.name, before ? all.with(same, before.value > one.value ? before : one) : [...all, one]);
  }
  return groups;
}

const DAY_MS = 86_400_000;
/** Weeks after which a test is due again. */
export const TEST_WEEKS = 4;

export interface DueTest {
  test: KnownTest;
  /** Whole weeks since it was last done. */
  weeks: number;
}

/** Tests that were done before and are due again, the longest ago first. One that was only noted by hand is known by its usual name. */
export function dueTests(noted: readonly Benchmark[], results: readonly TestResult[], now: string): DueTest[] {
  return [...measured(noted, results)]
    .flatMap(([name, all]): DueTest[] => {
      const last = all.at(-1);
      const weeks = last ? Math.floor((Date.parse(now) - Date.parse(last.on)) / (7 * DAY_MS)) : 0;
      const usual = USUAL_TESTS.find((one) => one.name === name);
      const done = all.findLast((one): one is TestResult => 'movementId' in one);
      if (!last || weeks < TEST_WEEKS || (!done && !usual)) return [];
      if (!done) return usual ? [{ test: usual, weeks }] : [];
      const { movementId, unit, seconds, clean } = done;
      return [{ test: { ...usual, name, movementId, unit, seconds, clean }, weeks }];
    })
    .sort((a, b) => b.weeks - a.weeks);
}
