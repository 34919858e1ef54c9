/**
 * A client as they are on one day: all that a session and a plan need to know, and nothing else.
 * No health note, no address, no answers to questions: this is what a device may keep.
 */
import { isRuling } from '../movement/limit-schema.js';
import { type Equipped, rulesOut } from '../movement/limits.js';
import type { Client, ClientOnDay } from './client-schema.js';
import { awaitsClearance, easeOf, limitsHolding } from './screening.js';

/** Consent counts from its day on. */
const consented = (on: string | null, day: string): boolean => on !== null && on <= day;

/** @param day YYYY-MM-DD, in the zone of the studio */
export const clientOnDay = (client: Client, day: string): ClientOnDay => ({
  id: client.id,
  name: client.name,
  day,
  unit: client.unit,
  limits: limitsHolding(client, day),
  // Until somebody qualified has cleared a client nothing is made harder.
  ease: awaitsClearance(client.readiness) ? { code: 'clearance' } : easeOf(client.today, day),
  trainingYears: client.trainingYears,
  dayMostly: client.dayMostly,
  looks: client.looks,
  kit: client.kit,
  homeSpace: client.homeSpace,
  houseRules: client.houseRules,
  mayTouch: consented(client.touchConsentOn, day),
  mayFilm: consented(client.filmConsentOn, day),
  benchmarks: client.benchmarks,
});

/** The same for a device to keep: what is limited, and not why. */
export const withoutReasons = (client: ClientOnDay): ClientOnDay => ({
  ...client,
  limits: client.limits.map(({ demand, allowed, until, condition, movements }) => ({
    demand,
    allowed,
    reason: 'a recorded limit',
    ...(until ? { until } : {}),
    // A ruling is on whole movements, and only the condition tells which.
    ...(isRuling(demand) ? (movements ? { movements } : { condition }) : {}),
  })),
  ease: client.ease === null ? null : { code: 'some' },
});

/**
 * The same for whoever may not know the condition either: they are told which movements it rules out.
 * @param library every movement there is
 */
export const withoutConditions = (
  client: ClientOnDay,
  library: readonly Pick<Equipped, 'id' | 'notFor' | 'suits'>[],
): ClientOnDay => {
  const told = withoutReasons(client);
  const limits = told.limits.map(({ condition, ...limit }) =>
    condition
      ? { ...limit, movements: library.filter((one) => rulesOut({ ...limit, condition }, one)).map(({ id }) => id) }
      : limit,
  );
  return { ...told, limits };
};
