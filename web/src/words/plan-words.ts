/** What is wrong with a plan and what mends it, why a suggestion is as it is, and what another order saves, as sentences. */
import { becauseWords } from '@waxwing/core/formats';
import { inWords, label } from '@waxwing/core/movement';
import {
  type FixDoes,
  type LeftOut,
  minuteWords,
  type PenaltyKind,
  type Reordered,
  type SuggestReason,
  type Wrong,
} from '@waxwing/core/planning';

import { type NameOf, whyWords } from './reasons';
import { say } from './say';

/** Names of movements and of people. */
export interface Names {
  movement: NameOf;
  client: (clientId: string) => string;
}

export const lower = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);

export function wrongWords(wrong: Wrong, { movement, client }: Names): string {
  switch (wrong.code) {
    case 'gone':
      return say.plan.isNoLongerInThe(wrong.movementId);
    case 'closed':
      return say.plan.isClosedForNothingNear(
        movement(wrong.movementId),
        client(wrong.clientId),
        becauseWords(wrong.because),
        wrong.near,
      );
    case 'hurt':
      return say.plan.hurtSharplyWhenItWas(movement(wrong.movementId), client(wrong.clientId));
    case 'no-kit':
      return say.plan.itsKitIsNotHere(movement(wrong.movementId));
    case 'no-load':
      return say.plan.cannotBeMadeWithThis(movement(wrong.movementId), wrong.to);
    case 'short':
      return say.plan.wantAtTheSameTime(
        wrong.clientIds.map(client).join(say.common.and),
        wrong.what,
        wrong.wanted,
        wrong.there,
      );
    case 'no-time':
      return say.plan.takesSAndANew(movement(wrong.movementId), wrong.seconds, wrong.every);
    case 'over':
      return say.plan.overTheMinutes(minuteWords(wrong.seconds), wrong.minutes);
    case 'tired-legs':
      return say.plan.comesWhenTheLegsAre(movement(wrong.movementId));
    case 'combined-too-soon':
      return say.plan.twoMovementsAreCombinedBefore;
    case 'cold-shoulders':
      return say.plan.goesOverheadAndNothingWarms(movement(wrong.movementId));
    case 'no-warm-up':
      return say.plan.thereIsNoWarmUp;
    case 'no-stretch':
      return say.plan.setsAndNoStretchFor(label(wrong.muscle), wrong.sets);
    case 'push-pull':
      return say.plan.setsOfPushingToOf(client(wrong.clientId), wrong.push, wrong.pull);
  }
}

export function fixWords(does: FixDoes, { movement, client }: Names): string {
  switch (does.code) {
    case 'take':
      return say.plan.take(movement(does.movementId));
    case 'leave-out':
      return say.plan.leaveItOut;
    case 'amount':
      return say.plan.inATurn(client(does.clientId), does.amount);
    case 'same-rounds':
      return say.plan.doEveryRoundAsThe;
    case 'load': {
      const take = `${does.to}${does.amount === null ? '' : say.plan.repsForTheSameEffort(does.amount)}`;
      return does.clientId === null ? say.plan.takeThis(take) : say.plan.takesThis(client(does.clientId), take);
    }
    case 'stations':
      return say.plan.goRoundAsStations;
    case 'take-off':
      return say.plan.takeOff(
        [
          ...(does.sets > 0 ? [say.common.sets(does.sets)] : []),
          ...(does.lines > 0 ? [say.plan.lines(does.lines)] : []),
        ].join(say.common.and),
      );
    case 'first':
      return say.plan.doItFirst;
    case 'alone-first':
      return say.plan.doEachAloneFirst;
    case 'add':
      return say.plan.add(does.movementIds.map(movement).join(say.common.and));
    case 'less-pushing':
      return say.plan.atMostSetsOfPushing(does.most);
  }
}

/** From here on nobody says how many weeks it was. */
const LONG_WEEKS = 4;

export function suggestWords(reason: SuggestReason, { client }: Names): string {
  switch (reason.code) {
    case 'asked-for':
      return say.plan.askedFor(label(reason.pattern));
    case 'short':
      return say.plan.setsInFourWeeksAbout(label(reason.pattern), reason.sets, reason.wanted);
    case 'not-trained':
      return `${label(reason.pattern)}: ${
        reason.weeks >= LONG_WEEKS ? say.plan.notTrainedInFourWeeks : say.plan.notTrainedForWeeks(reason.weeks)
      }`;
    case 'test-due':
      return say.plan.lastTestedWeeksAgo(client(reason.clientId), reason.name, reason.weeks);
    case 'left-out': {
      const out = say.plan.leavesOut(client(reason.clientId), inWords(reason.pattern));
      return reason.by.length > 0
        ? say.plan.closedByWhatALimit(out, becauseWords(reason.by))
        : say.plan.nothingFitsTheKitAnd(out);
    }
    case 'shorter-rests':
      return say.plan.shorterRestsToEndOn;
    case 'fewer-lines':
      return say.plan.leftOutToEndOn(reason.count);
  }
}

export const leftOutWords = ({ clientId, movementId, why, closedBy }: LeftOut, { movement, client }: Names): string =>
  say.plan.leavesOutBecause(
    client(clientId),
    movement(movementId),
    closedBy.length > 0 ? say.plan.closedBy(becauseWords(closedBy)) : lower(whyWords(why, movement)),
  );

/** What is better where the order keeps clear of a penalty. */
const BETTER: Readonly<Record<PenaltyKind, string>> = say.plan.better;

/** `6 fewer weight changes, 4:00 min saved`; what the order is better for where no time is saved. */
export function savedWords({ saved, better, moved }: Reordered): string {
  if (!moved) return say.plan.thisOrderIsAlreadyThe;
  const seconds = Math.abs(saved.seconds);
  const words = [
    ...(saved.weightChanges === 0 ? [] : [say.plan.fewerWeightChanges(saved.weightChanges)]),
    ...(saved.floorTrips === 0 ? [] : [say.plan.fewerFloorTrips(saved.floorTrips)]),
    ...(seconds === 0
      ? []
      : [
          say.plan.timeSaved(`${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`, saved.seconds > 0),
        ]),
  ];
  const gains = better.map((kind) => BETTER[kind]).join(say.plan.and);
  if (words.length === 0) return say.plan.noMinutesSaved(gains ? `; ${gains}` : '');
  // Where nothing is saved, what the new order is better for has to be said.
  const saves = saved.weightChanges > 0 || saved.floorTrips > 0 || saved.seconds > 0;
  return `${words.join(', ')}${gains ? `${saves ? '; ' : say.plan.but}${gains}` : ''}.`;
}
