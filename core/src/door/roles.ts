/** Who works in a studio, and what each may see. */
import { withoutReasons } from '../client/client-on-day.js';
import type { ClientOnDay, ClientSummary } from '../client/client-schema.js';
import type { Client } from '../client/client-schema.js';
import type { Visitor } from './door-schema.js';

export const ROLES = ['owner', 'trainer', 'assistant'] as const;
export type Role = (typeof ROLES)[number];

/** Whether they may know why somebody is limited, and what is noted of their health. */
export const maySeeHealth = ({ role }: Pick<Visitor, 'role'>): boolean => role !== 'assistant';

/** A client of a list, as somebody may see it: free text about a person goes to those who train them. */
export const listedFor = (visitor: Visitor, client: ClientSummary): ClientSummary =>
  maySeeHealth(visitor) ? client : { ...client, about: '', goal: '', screened: null, checkedOn: null };

/** A client on one day, as somebody may see it: an assistant knows what is limited, and not why. */
export const onDayFor = (visitor: Visitor, client: ClientOnDay): ClientOnDay =>
  maySeeHealth(visitor) ? client : withoutReasons(client);

/** What of a client says something about their health. */
export const HEALTH_FIELDS = [
  'healthNote',
  'note',
  'readiness',
  'today',
  'limits',
] as const satisfies readonly (keyof Client)[];

/** The health fields of a client in which something is noted. */
export const healthNotedIn = (client: Partial<Pick<Client, (typeof HEALTH_FIELDS)[number]>>): string[] =>
  HEALTH_FIELDS.filter((field) => {
    const value = client[field];
    return Array.isArray(value) ? value.length > 0 : Boolean(value);
  });
