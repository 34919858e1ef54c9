/** What is wrong with a plan and what mends it, why a suggestion is as it is, and what another order saves, as sentences. */
import { becauseWords } from '@waxwing/core/formats';
import { inWords, label } from '@waxwing/core/movement';
import {
  minuteWords,
  type FixDoes,
  type LeftOut,
  type PenaltyKind,
  type Reordered,
  type SuggestReason,
  type Wrong,
} from '@waxwing/core/planning';
import { whyWords, type NameOf } from './reasons';

/** Names of movements and of people. */
export interface Names {
  movement: NameOf;
  client: (clientId: string) => string;
}

export const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
export const lower = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);

export function wrongWords(wrong: Wrong, { movement, client }: Names): string {
  switch (wrong.code) {
    case 'gone':
      return `${wrong.movementId} is no longer in the library.`;
    case 'closed':
      return `${movement(wrong.movementId)} is closed for ${client(wrong.clientId)}: ${becauseWords(wrong.because)}.${
        wrong.near ? '' : ' Nothing near it is open: leave it out, or ask a qualified clinician.'
      }`;
    case 'hurt':
      return `${movement(wrong.movementId)} hurt ${client(wrong.clientId)} sharply when it was last done. Has a qualified clinician looked at it?`;
    case 'no-kit':
      return `${movement(wrong.movementId)}: its kit is not here.`;
    case 'no-load':
      return `${movement(wrong.movementId)}: ${wrong.to} cannot be made with this kit.`;
    case 'short':
      return `${wrong.clientIds.map(client).join(' and ')} want ${wrong.what} at the same time: ${wrong.wanted} wanted, ${wrong.there} here.`;
    case 'no-time':
      return `${movement(wrong.movementId)} takes ${wrong.seconds} s, and a new turn begins every ${wrong.every} s.`;
    case 'over':
      return `${minuteWords(wrong.seconds)} over the ${wrong.minutes} minutes.`;
    case 'tired-legs':
      return `${movement(wrong.movementId)} comes when the legs are already tired.`;
    case 'combined-too-soon':
      return 'Two movements are combined before each was done alone.';
    case 'cold-shoulders':
      return `${movement(wrong.movementId)} goes overhead and nothing warms up the shoulders.`;
    case 'no-warm-up':
      return 'There is no warm-up.';
    case 'no-stretch':
      return `${label(wrong.muscle)}: ${count(wrong.sets, 'set')} and no stretch for it.`;
    case 'push-pull':
      return `${client(wrong.clientId)}: ${count(wrong.push, 'set')} of pushing to ${wrong.pull} of pulling.`;
  }
}

export function fixWords(does: FixDoes, { movement, client }: Names): string {
  switch (does.code) {
    case 'take':
      return `Take ${movement(does.movementId)}`;
    case 'leave-out':
      return 'Leave it out';
    case 'amount':
      return `${client(does.clientId)}: ${does.amount} in a turn`;
    case 'same-rounds':
      return 'Do every round as the line says';
    case 'load': {
      const take = `${does.to}${does.amount === null ? '' : `, ${does.amount} reps for the same effort`}`;
      return does.clientId === null ? `Take ${take}` : `${client(does.clientId)}: take ${take}`;
    }
    case 'stations':
      return 'Go round as stations';
    case 'take-off':
      return `Take off ${[
        ...(does.sets > 0 ? [count(does.sets, 'set')] : []),
        ...(does.lines > 0 ? [count(does.lines, 'line')] : []),
      ].join(' and ')}`;
    case 'first':
      return 'Do it first';
    case 'alone-first':
      return 'Do each alone first';
    case 'add':
      return `Add ${does.movementIds.map(movement).join(' and ')}`;
    case 'less-pushing':
      return `At most ${does.most} sets of pushing`;
  }
}

/** From here on nobody says how many weeks it was. */
const LONG_WEEKS = 4;

export function suggestWords(reason: SuggestReason, { client }: Names): string {
  switch (reason.code) {
    case 'asked-for':
      return `${label(reason.pattern)}: asked for`;
    case 'short':
      return `${label(reason.pattern)}: ${count(reason.sets, 'set')} in four weeks, about ${reason.wanted} would balance the rest`;
    case 'not-trained':
      return `${label(reason.pattern)}: ${
        reason.weeks >= LONG_WEEKS ? 'not trained in four weeks' : `not trained for ${reason.weeks} weeks`
      }`;
    case 'test-due':
      return `${client(reason.clientId)}: ${reason.name}, last tested ${reason.weeks} weeks ago`;
    case 'left-out': {
      const out = `${client(reason.clientId)} leaves out ${inWords(reason.pattern)}`;
      return reason.by.length > 0
        ? `${out}: closed by ${becauseWords(reason.by)}. What a limit means is for a clinician to say.`
        : `${out}: nothing fits the kit and the room.`;
    }
    case 'shorter-rests':
      return 'Shorter rests, to end on time';
    case 'fewer-lines':
      return `${reason.count} left out, to end on time`;
  }
}

export const leftOutWords = ({ clientId, movementId, why, closedBy }: LeftOut, { movement, client }: Names): string =>
  `${client(clientId)} leaves out ${movement(movementId)}: ${
    closedBy.length > 0 ? `closed by ${becauseWords(closedBy)}.` : lower(whyWords(why, movement))
  }`;

/** What is better where the order keeps clear of a penalty. */
const BETTER: Readonly<Record<PenaltyKind, string>> = {
  sameMuscles: 'muscles rest better',
  gripTwice: 'the grip rests better',
  late: 'what wants fresh legs comes earlier',
  tires: 'carries come later',
};

/** `6 fewer weight changes, 4:00 min saved`; what the order is better for where no time is saved. */
export function savedWords({ saved, better, moved }: Reordered): string {
  if (!moved) return 'This order is already the best.';
  const less = (n: number, one: string, many: string) =>
    `${Math.abs(n)} ${n > 0 ? 'fewer' : 'more'} ${Math.abs(n) === 1 ? one : many}`;
  const seconds = Math.abs(saved.seconds);
  const words = [
    ...(saved.weightChanges === 0 ? [] : [less(saved.weightChanges, 'weight change', 'weight changes')]),
    ...(saved.floorTrips === 0 ? [] : [less(saved.floorTrips, 'trip to the floor', 'trips to the floor')]),
    ...(seconds === 0
      ? []
      : [
          `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')} min ${saved.seconds > 0 ? 'saved' : 'more'}`,
        ]),
  ];
  const gains = better.map((kind) => BETTER[kind]).join(', and ');
  if (words.length === 0) return `No minutes saved${gains ? `; ${gains}` : ''}.`;
  // Where nothing is saved, what the new order is better for has to be said.
  const saves = saved.weightChanges > 0 || saved.floorTrips > 0 || saved.seconds > 0;
  return `${words.join(', ')}${gains ? `${saves ? '; ' : ', but '}${gains}` : ''}.`;
}
