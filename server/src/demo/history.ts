/**
 * Six weeks of sessions for the demo studio, made from a fixed seed and counted back from today:
 * people do their programme, show the faults they tend to, are corrected as core would advise, and get better at it.
 */
import {
  advise,
  type Attempt,
  countTrials,
  type Evidence,
  type Outcome,
  styleOf,
  type Trial,
} from '@waxwing/core/coaching';
import { type Load, loadsFor } from '@waxwing/core/dosage';
import { correctionKey, type Effort, type Movement } from '@waxwing/core/movement';
import type { EventOf, EventType, FindMovement, SessionEvent } from '@waxwing/core/session';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { v7 as uuidv7 } from 'uuid';

import { type Person, STUDIO_KIT, type Work } from './studio.js';

export const WEEKS = 6;
const SEED = 4310;
const MINUTE = 60_000;
const DAY = 86_400_000;

export interface PastSession {
  id: string;
  clientIds: string[];
  startedAt: string;
  finishedAt: string;
  events: SessionEvent[];
}

/** Random numbers that come out the same every time. */
export class Dice {
  private readonly generator = xoroshiro128plus(SEED);

  /** A number from 0 to below 1. */
  roll(): number {
    return uniformInt(this.generator, 0, 999_999) / 1_000_000;
  }

  /** A version-7 UUID for a time. */
  uuid(msecs: number): string {
    return uuidv7({ msecs, random: Uint8Array.from({ length: 16 }, () => uniformInt(this.generator, 0, 255)) });
  }
}

/** A trial, and whose it was. */
type Known = Trial & { clientId: string };

interface Member {
  person: Person;
  clientId: string;
}

/** All sessions of all members, earliest first. `ids` gives each person's client id. */
export function makeHistory(
  people: readonly Person[],
  ids: ReadonlyMap<string, string>,
  find: FindMovement,
  now: Date,
  dice: Dice,
): PastSession[] {
  const trials: Known[] = [];
  const today = Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate());
  const member = (person: Person): Member => ({ person, clientId: ids.get(person.name) ?? '' });
  const dates = people
    .filter((person) => !person.sharesWith)
    .flatMap((person) =>
      Array.from({ length: WEEKS }, (_, i) => i + 1).flatMap((week) =>
        person.trains.map((back) => ({
          person,
          week,
          at: today - (WEEKS - week) * 7 * DAY - back * DAY + person.hour * 60 * MINUTE,
        })),
      ),
    )
    .sort((a, b) => a.at - b.at);
  return dates.map(({ person, week, at }) => {
    const partners = people.filter((other) => other.sharesWith === person.name);
    return new SessionMaker([person, ...partners].map(member), at, week, find, dice, trials).make();
  });
}

/** The load of a week: `work.kg` names one piece, and a movement may take a pair of them. */
function loadOf(movement: Movement, work: Work, weeks: number): Load | undefined {
  const kg = work.kg?.[Math.min(weeks, work.kg.length - 1)];
  if (kg === undefined) return undefined;
  return movement.kit.flatMap((option) => loadsFor([option], STUDIO_KIT)).find((load) => load.kg === kg * load.count);
}

/** Plays one session through and writes down what a device would have sent. */
class SessionMaker {
  private readonly events: SessionEvent[] = [];
  private readonly id: string;
  private clock: number;

  constructor(
    private readonly members: readonly Member[],
    private readonly startedAt: number,
    private readonly week: number,
    private readonly find: FindMovement,
    private readonly dice: Dice,
    private readonly trials: Known[],
  ) {
    this.id = dice.uuid(startedAt);
    this.clock = startedAt + 6 * MINUTE;
  }

  make(): PastSession {
    for (const member of this.members)
      for (const work of member.person.work) {
        const movement = this.find(work.movementId);
        if (movement && work.from <= this.week && this.week <= work.to) this.play(member, work, movement);
      }
    const [first] = this.members;
    this.pass(4 * MINUTE);
    if (first) this.record(first, 'session-finished', {});
    return {
      id: this.id,
      clientIds: this.members.map((member) => member.clientId),
      startedAt: new Date(this.startedAt).toISOString(),
      finishedAt: new Date(this.clock).toISOString(),
      events: this.events,
    };
  }

  private pass(milliseconds: number): void {
    this.clock += Math.round(milliseconds * (0.8 + 0.4 * this.dice.roll()));
  }

  private record<T extends EventType>({ clientId }: Member, type: T, data: EventOf<T>['data']): string {
    const id = this.dice.uuid(this.clock);
    const at = new Date(this.clock).toISOString();
    this.events.push({
      id,
      sessionId: this.id,
      clientId,
      counter: this.events.length + 1,
      at,
      type,
      data,
    } as SessionEvent);
    return id;
  }

  private play(member: Member, work: Work, movement: Movement): void {
    const entryId = this.record(member, 'movement-started', { movementId: movement.id, why: null });
    const open = new Set<string>();
    const attempts: Attempt[] = [];
    const others = this.trials.filter(
      (t) => t.clientId !== member.clientId && t.correction.startsWith(`${movement.id}/`),
    );
    const evidence: Evidence = {
      trials: this.trials.filter((t) => t.clientId === member.clientId),
      others: countTrials(others, new Date(this.clock).toISOString()),
    };
    const weeks = this.week - work.from;
    const load = loadOf(movement, work, weeks);
    for (let set = 0; set < work.sets; set += 1) {
      const tired = set === work.sets - 1 && this.dice.roll() < 0.35 ? 1 : 0;
      const amount = work.amount + weeks * work.addEachWeek - tired;
      const effort = this.effort(set, work.sets, tired);
      for (const side of movement.sides === 'each' ? (['left', 'right'] as const) : (['both'] as const)) {
        this.pass(0.8 * MINUTE);
        if (side !== 'right') this.watch(member, movement, entryId, open);
        const setId = this.record(member, 'set-done', {
          entryId,
          side,
          amount,
          kg: load?.kg ?? null,
          loadLabel: load?.label ?? null,
        });
        this.record(member, 'effort-felt', { setId, effort });
      }
      this.correct(member, movement, entryId, open, attempts, evidence);
      this.pass(1.2 * MINUTE);
    }
  }

  private effort(set: number, sets: number, tired: number): Effort {
    if (tired) return 'hard';
    return set === 0 && this.dice.roll() < 0.4
      ? 'easy'
      : set === sets - 1 && this.dice.roll() < 0.2
        ? 'hard'
        : 'medium';
  }

  /** Faults fade over the weeks, and one that was fixed in this session seldom returns. */
  private watch(member: Member, movement: Movement, entryId: string, open: Set<string>): void {
    for (const fault of movement.faults) {
      const tendency = member.person.tends[`${movement.id}/${fault.id}`] ?? 0.03;
      const chance = tendency * (1 - 0.12 * (this.week - 1));
      if (fault.severity === 'stop' || open.has(fault.id) || this.dice.roll() >= chance) continue;
      open.add(fault.id);
      this.record(member, 'fault-seen', { entryId, faultId: fault.id });
    }
  }

  private correct(
    member: Member,
    movement: Movement,
    entryId: string,
    open: Set<string>,
    attempts: Attempt[],
    evidence: Evidence,
  ): void {
    if (open.size === 0) return;
    const now = new Date(this.clock).toISOString();
    const mayTouch = member.person.touchConsentDaysAgo !== undefined;
    const situation = {
      movement,
      seen: [...open],
      attempts,
      evidence,
      now,
      named: [],
      mayTouch,
      maySwapTo: () => false,
    };
    const advice = advise(situation);
    if (advice.kind !== 'correct') return;
    const { fault, correction, addresses, cue } = advice.primary;
    const given = { entryId, faultId: fault.id, correctionId: correction.id, addresses: addresses.map((f) => f.id) };
    const correctionEventId = this.record(member, 'correction-given', given);
    const outcome = this.outcome(cue ? member.person.hears[cue.focus] : 0.6);
    this.pass(0.3 * MINUTE);
    this.record(member, 'outcome-noted', { correctionEventId, outcome });
    attempts.push({ faultId: fault.id, correctionId: correction.id, outcome });
    this.trials.push({
      clientId: member.clientId,
      correction: correctionKey(movement.id, fault.id, correction.id),
      ...styleOf(movement, correction),
      outcome,
      at: now,
    });
    if (outcome === 'fixed') for (const { id } of addresses) open.delete(id);
  }

  private outcome(chance: number): Outcome {
    if (this.dice.roll() < chance) return this.dice.roll() < 0.65 ? 'fixed' : 'better';
    return this.dice.roll() < 0.9 ? 'same' : 'worse';
  }
}
