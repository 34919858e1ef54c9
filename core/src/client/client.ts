/** A client: who they are, their limits, their kit and what they agreed to. */
import type { RuleChoices } from '../movement/house-rules.js';
import type { KitPiece } from '../movement/kit.js';
import type { Limit } from '../movement/limits.js';
import type { Space } from '../movement/vocabulary.js';
import type { Looks } from '../movement/looks.js';
import type { Benchmark, ReadinessCheck, TodayCheck } from './screening.js';

/** What most of somebody's day is: it decides what balances it. */
export const DAY_KINDS = ['sits', 'bends', 'lifts', 'stands'] as const;
export type DayKind = (typeof DAY_KINDS)[number];

export interface Client {
  id: string;
  version: number;
  name: string;
  about: string;
  goal: string;
  /** Private: only ever sent with this one client, never in a list. */
  healthNote: string;
  /** Day on which the client agreed to be touched for correction (YYYY-MM-DD). */
  touchConsentOn: string | null;
  /** Day on which the client agreed to be filmed (YYYY-MM-DD). */
  filmConsentOn: string | null;
  /** Where sheets are sent; empty for nowhere. */
  email: string;
  /** The trainer's notes that are not about health. */
  note: string;
  /** Whole years of training so far; null when not noted. */
  trainingYears: number | null;
  /** Kilograms; null when not noted. */
  bodyKg: number | null;
  /** How the day is mostly spent; null when not noted. */
  dayMostly: DayKind | null;
  /** Who shows the movements to them; null for the studio's choice. */
  looks: Looks | null;
  /** The unit in which weights are read. */
  unit: 'kg' | 'lb';
  /** Questions asked before the first session; null until they were. */
  readiness: ReadinessCheck | null;
  /** The latest check before a session; it holds for its own day only. */
  today: TodayCheck | null;
  benchmarks: Benchmark[];
  limits: Limit[];
  /** What there is at home, and the room. */
  kit: KitPiece[];
  homeSpace: Space;
  /** Where this client's schools differ from the studio's. */
  houseRules: RuleChoices;
}

/** A client in a list, with when they come. */
export interface ClientSummary extends Pick<Client, 'id' | 'name' | 'about' | 'goal'> {
  /** How many. */
  limits: number;
  /** Whether the questions before starting were asked; null for who may not know. */
  screened: boolean | null;
  /** Day of the last check before a session; null where there was none, and for who may not know. */
  checkedOn: string | null;
  /** When their last session began (ISO). */
  last: string | null;
  /** When those of the last weeks began, the earliest first. */
  came: string[];
  /** The next plan that is theirs. */
  next: { planId: string; startsAt: string } | null;
}

/** What a client has before anybody said anything. */
export const BLANK_CLIENT: Omit<Client, 'id' | 'version' | 'name'> = {
  about: '',
  goal: '',
  healthNote: '',
  touchConsentOn: null,
  filmConsentOn: null,
  email: '',
  note: '',
  trainingYears: null,
  bodyKg: null,
  dayMostly: null,
  looks: null,
  unit: 'kg',
  readiness: null,
  today: null,
  benchmarks: [],
  limits: [],
  kit: [],
  homeSpace: 'mat',
  houseRules: {},
};
