/** A client in a list, and one of whom nothing is known yet. */
import type { Client } from './client-schema.js';

/** What most of somebody's day is: it decides what balances it. */
export const DAY_KINDS = ['sits', 'bends', 'lifts', 'stands'] as const;
export type DayKind = (typeof DAY_KINDS)[number];

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
  cleared: [],
  painsOver: [],
  kit: [],
  homeSpace: 'mat',
  houseRules: {},
};
