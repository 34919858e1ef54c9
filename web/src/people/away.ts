/** Who has not been here for long and has no plan. */
import type { ClientSummary } from '@waxwing/core/client';
import { LONG_AWAY } from '@waxwing/core/planning';

import { dayNumber } from '../words/dates';

/** Days after which it is asked what is kept of somebody for. */
const FORMER_DAYS = 365;

/** Whole days since the last session of somebody without a plan; 0 for everybody else. */
const daysAway = ({ last, next }: ClientSummary, now: Date): number =>
  next === null && last !== null ? dayNumber(now) - dayNumber(new Date(last)) : 0;

export const isFormer = (client: ClientSummary, now: Date): boolean => daysAway(client, now) >= FORMER_DAYS;

/** Clients who should be asked for, the longest away first. Former ones are not among them. */
export const longAway = (clients: readonly ClientSummary[], now: Date): ClientSummary[] =>
  clients
    .filter((client) => daysAway(client, now) >= LONG_AWAY && !isFormer(client, now))
    .toSorted((a, b) => (a.last ?? '').localeCompare(b.last ?? ''));
