/** The studio: its name, its trainer, its kit and its rules. */
import type { RuleChoices } from '../movement/house-rules.js';
import type { KitPiece } from '../movement/kit.js';
import type { Space } from '../movement/vocabulary.js';
import type { Looks } from '../movement/looks.js';
import type { KeptPlace } from './place.js';

export interface Studio {
  version: number;
  name: string;
  trainer: string;
  kit: KitPiece[];
  /** The room that there is to work in. */
  space: Space;
  /** Where else sessions are held. */
  places: KeptPlace[];
  houseRules: RuleChoices;
  /** Who shows the movements; null for a mix of people. */
  looks: Looks | null;
  /** What is done here in an emergency, in the studio's own words, and whom to call. */
  emergencyText: string;
  emergencyPhone: string;
  clients: number;
  movements: number;
}

/** Something that lies on the disk and cannot be read. */
export interface Damaged {
  what: 'client' | 'plan' | 'movement' | 'studio' | 'session' | 'event';
  id: string;
  name: string;
}

/** A copy of the whole studio in its data folder. */
export interface KeptBackup {
  file: string;
  /** ISO. */
  madeAt: string;
  bytes: number;
}

/** How the studio's data is kept. */
export interface Keeping {
  freeBytes: number;
  /** The disk has little room left. */
  low: boolean;
  /** Latest first. */
  backups: KeptBackup[];
  /** The backup of today could not be made. */
  backupFailed: boolean;
  damaged: Damaged[];
}
