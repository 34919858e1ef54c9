/** Who works in a studio, and what each may see. */
import { withoutConditions } from '../client/client-on-day.js';
import type { ClientOnDay, ClientSummary } from '../client/client-schema.js';
import type { Client } from '../client/client-schema.js';
import { withoutPlace } from '../client/open-pains.js';
import type { ClientRecord } from '../coaching/evidence-schema.js';
import type { StoredPlan } from '../planning/stored.js';
import { withoutWords } from '../planning/told.js';
import type { SessionEvent } from '../session/events.js';
import { programmeWithoutPrivate, withoutPrivate, withoutReason } from '../session/told.js';
import type { SessionView } from '../session/view.js';
import type { Visitor } from './door-schema.js';

export const ROLES = ['owner', 'trainer', 'assistant'] as const;
export type Role = (typeof ROLES)[number];

/** Whether they may know why somebody is limited, and what is noted of their health. */
export const maySeeHealth = ({ role }: Pick<Visitor, 'role'>): boolean => role !== 'assistant';

/** A client of a list, as somebody may see it: free text about a person goes to those who train them. */
export const listedFor = (visitor: Visitor, client: ClientSummary): ClientSummary =>
  maySeeHealth(visitor) ? client : { ...client, about: '', goal: '', screened: null, checkedOn: null };

/** A client on one day, as somebody may see it: an assistant knows what is limited, and not why. */
export const onDayFor = (
  visitor: Visitor,
  client: ClientOnDay,
  library: Parameters<typeof withoutConditions>[1],
): ClientOnDay => (maySeeHealth(visitor) ? client : withoutConditions(client, library));

/** Events, in an answer of any kind, as somebody may see them. */
export const eventsFor = <T extends { events: readonly SessionEvent[] }>(visitor: Visitor, answer: T): T =>
  maySeeHealth(visitor) ? answer : { ...answer, events: answer.events.map(withoutPrivate) };

/** A session in the same way, with what was planned for it. */
export const viewFor = (visitor: Visitor, view: SessionView): SessionView =>
  maySeeHealth(visitor)
    ? view
    : { ...eventsFor(visitor, view), programme: view.programme && programmeWithoutPrivate(view.programme) };

export const planFor = (visitor: Visitor, plan: StoredPlan): StoredPlan =>
  maySeeHealth(visitor) ? plan : withoutWords(plan);

/** What sessions teach of a client: that a line was changed, and not why; what is left out for a pain, and not where it is. */
export const recordFor = (visitor: Visitor, record: ClientRecord): ClientRecord =>
  maySeeHealth(visitor)
    ? record
    : {
        ...record,
        moves: record.moves.map((move) => ({ ...move, why: withoutReason(move.why) })),
        pains: record.pains.map(withoutPlace),
      };

/** What of a client says something about their health. */
export const HEALTH_FIELDS = [
  'healthNote',
  'note',
  'readiness',
  'today',
  'limits',
  'painsOver',
] as const satisfies readonly (keyof Client)[];

/** The health fields of a client in which something is noted. */
export const healthNotedIn = (client: Partial<Pick<Client, (typeof HEALTH_FIELDS)[number]>>): string[] =>
  HEALTH_FIELDS.filter((field) => {
    const value = client[field];
    return Array.isArray(value) ? value.length > 0 : Boolean(value);
  });
