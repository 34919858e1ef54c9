/** What the levels of each demand mean: one sentence a level, and movements that stand for it. */
import { called, type Checked, checkedBy, slug } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { type Demand, DEMANDS } from './vocabulary.js';

const levelSchema = z.strictObject({ means: called(160), like: z.array(slug).min(1).max(2) });

export const demandLevelSchema = z.strictObject({
  demand: z.enum(DEMANDS),
  /** 1 a little, 2 clearly, 3 strongly. */
  level: z.int().min(1).max(3),
  means: levelSchema.shape.means,
  /** Movements that ask for exactly this much. */
  like: levelSchema.shape.like,
});
export type DemandLevel = z.infer<typeof demandLevelSchema>;

const levelsSchema = z
  .record(z.enum(DEMANDS), z.partialRecord(z.enum(['1', '2', '3']), levelSchema))
  .transform((all) =>
    DEMANDS.flatMap((demand) =>
      Object.entries(all[demand]).map(([level, one]): DemandLevel => ({ demand, level: Number(level), ...one })),
    ),
  );

/** Checks the levels, demand by demand, and gives them as a list in the order of the demands, gentlest level first. */
export const checkDemandLevels = (input: unknown): Checked<DemandLevel[]> => checkedBy(levelsSchema, input);

/** What a level of a demand means, where that is written down. */
export const levelOf = (levels: readonly DemandLevel[], demand: Demand, level: number): DemandLevel | undefined =>
  levels.find((one) => one.demand === demand && one.level === level);
