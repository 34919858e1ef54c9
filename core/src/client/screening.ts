/**
 * What is asked before somebody starts, and before each session. Plain questions, no diagnosis:
 * any yes sends to a qualified clinician first, and pain of today closes what it must for today only.
 */
import type { Limit } from '../movement/limit-schema.js';
import { limitsOn } from '../movement/limits.js';
import { REGIONS } from '../movement/vocabulary.js';
import { day, text, words } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import type { Ease } from './ease.js';
import { BODY_SIDES, limitsFromPain, type Pain, PAIN_QUALITIES } from './pain.js';

export const READINESS_QUESTIONS = [
  { id: 'heart', words: 'Has a doctor ever found something with your heart or your blood pressure?' },
  { id: 'chest', words: 'Have you felt pressure or pain in the chest, resting or moving, in the last months?' },
  { id: 'dizzy', words: 'Do you lose balance from dizziness, or have you fainted in the past year?' },
  { id: 'breath', words: 'Do you run short of breath with little effort, or at rest?' },
  { id: 'joint', words: 'Is there a bone, joint or back trouble that exercise could make worse?' },
  {
    id: 'illness',
    words: 'Do you live with a lasting illness, or take medicine that changes how your body answers effort?',
  },
  { id: 'surgery', words: 'Were you operated on, or badly ill, in the past year?' },
  { id: 'pregnant', words: 'Are you pregnant, or did you give birth in the past year?' },
  { id: 'told', words: 'Has anybody qualified told you to train only under supervision, or not at all?' },
] as const;
export type ReadinessQuestion = (typeof READINESS_QUESTIONS)[number]['id'];

const QUESTION_IDS = READINESS_QUESTIONS.map(({ id }) => id);

export const readinessCheckSchema = z.strictObject({
  on: day,
  /** Questions answered with yes. */
  yes: z.array(z.enum(QUESTION_IDS)).max(QUESTION_IDS.length),
  /** Day on which the trainer noted that a clinician gave clearance. */
  clearedOn: day.nullable(),
  clearedBy: words(200),
});
export type ReadinessCheck = z.infer<typeof readinessCheckSchema>;

/** A yes that nobody qualified has cleared yet. */
export const awaitsClearance = (check: ReadinessCheck | null): boolean =>
  check !== null && check.yes.length > 0 && check.clearedOn === null;

export const CLEARANCE_WORDS = 'Speak with a qualified clinician first.';

export const todayCheckSchema = z.strictObject({
  on: day,
  /** 1 hardly, 5 very well. */
  sleep: z.int().min(1, 'must be 1 to 5').max(5, 'must be 1 to 5'),
  energy: z.int().min(1, 'must be 1 to 5').max(5, 'must be 1 to 5'),
  pains: z
    .array(
      z.strictObject({
        region: z.enum(REGIONS),
        side: z.enum(BODY_SIDES),
        quality: z.enum([...PAIN_QUALITIES, 'sore']),
      }),
    )
    .max(40),
});
export type TodayCheck = z.infer<typeof todayCheckSchema>;

const isPain = (one: TodayCheck['pains'][number]): one is TodayCheck['pains'][number] & Pain => one.quality !== 'sore';

/** Limits of one day: from pain; soreness of worked muscles is no limit. A check of another day says nothing. */
export const limitsOfToday = (check: TodayCheck | null, today: string): Limit[] =>
  check?.on === today ? limitsFromPain(check.pains.filter(isPain)) : [];

/** Every limit of a client that holds on a day (YYYY-MM-DD): the recorded ones, and what that day's check closes. */
export const limitsHolding = (client: { limits: readonly Limit[]; today: TodayCheck | null }, day: string): Limit[] => [
  ...limitsOn(client.limits, day),
  ...limitsOfToday(client.today, day),
];

/** At or below this, sleep or energy is poor. */
const POOR = 2;

/** Why nothing goes up today; null when it may. */
export function easeOf(check: TodayCheck | null, today: string): Ease | null {
  if (check?.on !== today) return null;
  const [sleep, energy] = [check.sleep <= POOR, check.energy <= POOR];
  const sore = [...new Set(check.pains.filter(({ quality }) => quality === 'sore').map(({ region }) => region))];
  return sleep || energy || sore.length > 0 ? { code: 'today', sleep, energy, sore } : null;
}

export const BENCHMARK_UNITS = ['reps', 's', 'kg', 'm'] as const;

export const benchmarkSchema = z.strictObject({
  name: text(60),
  unit: z.enum(BENCHMARK_UNITS),
  on: day,
  value: z.number().min(0, 'must be 0 to 100000').max(100_000, 'must be 0 to 100000'),
});
export type Benchmark = z.infer<typeof benchmarkSchema>;
