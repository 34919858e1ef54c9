/** What a trainer should know before somebody comes: a few notes, the weightiest first. Nothing of it is an order; the policy of progress decides. */
import type { ClientOnDay } from '../client/client-schema.js';
import { type Condition, conditionsHeld } from '../client/conditions.js';
import type { PastSession } from '../client/history-schema.js';
import { type PainAtPlace, painsByPlace } from '../client/open-pains.js';
import type { ClientRecord } from '../coaching/evidence-schema.js';
import type { Ladder } from '../ladder/graph.js';
import type { KitPiece } from '../movement/kit-schema.js';
import type { Limit } from '../movement/limit-schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import type { Purpose } from '../movement/vocabulary.js';
import { heldBetween, nextTime, type TimeQuestion } from '../progress/next-time.js';
import { standingOf } from '../progress/standing.js';
import { lastVisit } from './carry.js';

export type Note =
  /** Somebody qualified has not cleared them yet. */
  | { code: 'clearance' }
  /** A pain of earlier sessions that nobody has called over: it is time to ask. */
  | { code: 'hurt'; pain: PainAtPlace }
  | { code: 'limits'; limits: readonly Limit[] }
  /** It is time to ask whether a condition still holds, and whom; it does until somebody says otherwise. */
  | { code: 'ask'; condition: string; whom: string }
  /** A fault of last time that holds a movement back. */
  | { code: 'fault'; movementId: string; fault: string | null }
  /** Its sign for the next rung is met. */
  | { code: 'ready'; movementId: string; to: string }
  /** What last time left for this one. */
  | { code: 'left'; movementIds: readonly string[] }
  /** Whole days since they were here, where that is long. */
  | { code: 'away'; days: number }
  | { code: 'first-time' };

/** Days without a session after which somebody has been away. */
export const LONG_AWAY = 14;

export interface BriefRequest {
  client: ClientOnDay;
  record: Pick<ClientRecord, 'sets' | 'hurt' | 'pains' | 'left'>;
  purpose: Purpose;
  kit: readonly KitPiece[];
  ladder: Pick<Ladder, 'rungs'>;
  find: (movementId: string) => MovementSummary | undefined;
  faultOf?: TimeQuestion['faultOf'];
  /** What is known of conditions; none for whoever may not know of them. */
  conditions?: readonly Condition[];
  /** Now, ISO. */
  now: string;
}

const DAY_MS = 86_400_000;

const lastOf = (sets: Readonly<Record<string, readonly PastSession[]>>): string =>
  Object.values(sets)
    .flatMap((past) => past.map(({ at }) => at))
    .reduce((late, at) => (at > late ? at : late), '');

export function briefOf({
  client,
  record,
  purpose,
  kit,
  ladder,
  find,
  faultOf,
  conditions = [],
  now,
}: BriefRequest): Note[] {
  const standing = standingOf(client, record);
  const notes: Note[] = [];
  if (client.ease?.code === 'clearance') notes.push({ code: 'clearance' });
  for (const pain of painsByPlace(record.pains)) notes.push({ code: 'hurt', pain });
  if (client.limits.length > 0) notes.push({ code: 'limits', limits: client.limits });
  for (const { ask, known } of conditionsHeld(client.limits, conditions, now.slice(0, 10)))
    if (ask && known) notes.push({ code: 'ask', condition: known.name, whom: known.clearedBy });
  const last = lastOf(record.sets);
  if (last === '') return [...notes, { code: 'first-time' }];
  const days = Math.floor((Date.parse(now) - Date.parse(last)) / DAY_MS);
  if (days >= LONG_AWAY) notes.push({ code: 'away', days });
  const ready: Note[] = [];
  for (const movementId of lastVisit(record.sets)) {
    const movement = find(movementId);
    if (!movement) continue;
    const question: TimeQuestion = {
      standing,
      movement,
      purpose,
      kit,
      ladder,
      find,
      sets: record.sets,
      faultOf,
    };
    const held = heldBetween(question);
    if (held?.code === 'open-fault') notes.push({ code: 'fault', movementId, fault: held.fault });
    const step = nextTime(question);
    if (step.kind === 'rung-up' && step.to !== null) ready.push({ code: 'ready', movementId, to: step.to });
  }
  const left: Note[] = record.left.length > 0 ? [{ code: 'left', movementIds: record.left }] : [];
  return [...notes, ...left, ...ready];
}
