/** How the studio's data is kept. */
import { z } from '../schema/zod.js';

/** Something that lies on the disk and cannot be read. */
export const damagedSchema = z.strictObject({
  what: z.enum(['client', 'plan', 'movement', 'studio', 'session', 'event']),
  id: z.string(),
  name: z.string(),
});
export type Damaged = z.infer<typeof damagedSchema>;

/** A copy of the whole studio in its data folder. */
export const keptBackupSchema = z.strictObject({
  file: z.string(),
  madeAt: z.string(),
  bytes: z.int().min(0),
});
export type KeptBackup = z.infer<typeof keptBackupSchema>;

export const keepingSchema = z.strictObject({
  freeBytes: z.number().min(0),
  /** The disk has little room left. */
  low: z.boolean(),
  /** Latest first. */
  backups: z.array(keptBackupSchema),
  /** The backup of today could not be made. */
  backupFailed: z.boolean(),
  damaged: z.array(damagedSchema),
});
export type Keeping = z.infer<typeof keepingSchema>;
