/** Plans of the demo studio for the coming days, suggested from the history as the plan screen would. */
import { type Client, clientOnDay } from '@waxwing/core/client';
import { amountOfParts } from '@waxwing/core/dosage';
import type { MovementSummary } from '@waxwing/core/movement';
import { type Block, emptyPlan, mapLane, type Plan, type SuggestClient, suggestSession } from '@waxwing/core/planning';
import { standingOf } from '@waxwing/core/progress';
import type { Part } from '@waxwing/core/schema';
import { digestOf, type FindMovement, fold, recordOf } from '@waxwing/core/session';

import type { Dice, PastSession } from './history.js';
import { type Person, STUDIO_KIT } from './studio.js';

const DAY = 86_400_000;
const HOUR = 3_600_000;

export interface Coming {
  id: string;
  plan: Plan;
}

interface Around {
  people: readonly Person[];
  /** By name. */
  clients: ReadonlyMap<string, Client>;
  history: readonly PastSession[];
  movements: readonly MovementSummary[];
  find: FindMovement;
  now: Date;
  dice: Dice;
}

/** Days ahead, today counted, that are planned already. */
const PLANNED_DAYS = 3;

/** A plan for whoever comes in the next days; people who share an hour share one. */
export function comingPlans(around: Around): Coming[] {
  const { people, clients, movements, find, now, dice } = around;
  const today = Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate());
  return people
    .filter((person) => !person.sharesWith)
    .map((person) => ({ person, inDays: person.comesToday ? 0 : 7 - Math.max(...person.trains) }))
    .filter(({ inDays }) => inDays < PLANNED_DAYS)
    .map(({ person, inDays }): Coming => {
      const startsAt = new Date(today + inDays * DAY + person.hour * HOUR).toISOString();
      const group = [person, ...people.filter((other) => other.sharesWith === person.name)];
      const who = group.flatMap(({ name }) => clients.get(name) ?? []).map((client) => suggested(client, around));
      const plan = emptyPlan(
        who.map(({ id }) => id),
        person.minutes,
      );
      const { blocks } = suggestSession({
        minutes: plan.minutes,
        purpose: plan.purpose,
        clients: who,
        movements,
        kit: STUDIO_KIT,
        space: plan.space,
        wanted: [],
        without: [],
        blocks: [],
        notThese: [],
        now: startsAt,
        newId: () => dice.uuid(now.getTime()),
      });
      return {
        id: dice.uuid(now.getTime()),
        plan: { ...plan, name: person.nextFor, startsAt, blocks: inParts(blocks, person.inParts, find) },
      };
    });
}

/** Blocks in which the first line of reps in the strength work is made of parts. */
function inParts(blocks: readonly Block[], parts: Part[] | undefined, find: FindMovement): Block[] {
  const lineOf = ({ kind, items }: Block) =>
    kind === 'strength'
      ? items.find(({ lanes }) => lanes.every((lane) => find(lane.movementId)?.dose.mode === 'reps'))
      : undefined;
  const first = blocks.flatMap((block) => lineOf(block) ?? [])[0];
  if (!parts || !first) return [...blocks];
  return first.lanes.reduce<Block[]>(
    (all, { clientId }) =>
      mapLane(all, first.id, clientId, (lane) => ({ ...lane, parts, amount: amountOfParts(parts) })),
    [...blocks],
  );
}

/** Somebody with what their sessions have taught. */
function suggested(client: Client, { history, find, now }: Around): SuggestClient {
  const lanes = history
    .filter(({ clientIds }) => clientIds.includes(client.id))
    .flatMap(({ events, clientIds }) => fold(events, clientIds).lanes[client.id] ?? []);
  const record = recordOf(
    lanes.map((lane) => digestOf(lane, find)),
    {},
  );
  const standing = standingOf(clientOnDay(client, now.toISOString().slice(0, 10)), record);
  const { sets, moves, left } = record;
  return { id: client.id, name: client.name, standing, day: client.dayMostly, sets, moves, left };
}
