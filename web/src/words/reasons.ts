/** Why a line of a plan, a next dose or a next rung is what it is: the one place where these reasons become sentences. */
import type { Ease } from '@waxwing/core/client';
import { holdWords, partsWords } from '@waxwing/core/dosage';
import type { SinceLast } from '@waxwing/core/floor';
import { CLOSED_BY } from '@waxwing/core/formats';
import { signWords } from '@waxwing/core/ladder';
import { demandWords, type DoseMode, type Effort, inWords, UNIT_WORDS, weightWords } from '@waxwing/core/movement';
import type { LineReason, PICKED } from '@waxwing/core/planning';
import type { Closing, Held } from '@waxwing/core/progress';

import { DAY_WORDS } from './day-words';
import { say } from './say';

/** The name of a movement; its id where it is in no list any more. */
export type NameOf = (movementId: string) => string;

const nameless = say.reasons.aFaultThatWasOpen;
const faultWords = (fault: string | null): string => fault?.toLowerCase() ?? nameless;
const faultsWords = (faults: readonly (string | null)[]): string => faults.map(faultWords).join(', ');

const percent = (share: number): string => `${Math.round(share * 100)} %`;
const sum = (pieces: readonly number[]): number => pieces.reduce((all, one) => all + one, 0);

/** Why a day asks for ease: `poor sleep, sore knee`. */
export function easeWords(ease: Ease): string {
  switch (ease.code) {
    case 'clearance':
      return say.reasons.waitingForClearance;
    case 'some':
      return say.reasons.anEasyDay;
    case 'today':
      return [
        ...(ease.sleep ? [say.reasons.poorSleep] : []),
        ...(ease.energy ? [say.reasons.littleEnergy] : []),
        ...ease.sore.map((region) => say.reasons.sore(inWords(region))),
      ].join(', ');
  }
}

/** Why nothing goes up: `first without “heels lift”`. */
export function heldWords(held: Held): string {
  switch (held.code) {
    case 'open-fault':
      return say.reasons.firstWithout(held.fault?.toLowerCase() ?? null);
    case 'pain':
      return say.reasons.notAfterPainToday;
    case 'failed':
      return say.reasons.notAfterAFailedSet;
    case 'marked':
      return say.reasons.lastTimeTirednessBeganTo;
    case 'strain':
      return say.reasons.aLimitOnHoldingThe;
    case 'away':
      return say.reasons.notDoneForWeeks(held.weeks);
    case 'few-reps':
      return say.reasons.tooFewRepsWouldBeLeft;
    case 'ease':
      return easeWords(held.ease);
  }
}

const closingWords = (by: readonly Closing[]): string =>
  by
    .map((one) => (one.code === 'limit' ? say.reasons.aLimitOn(demandWords(one.demand)) : CLOSED_BY[one.code]))
    .join('; ');

interface Done {
  amount: number;
  mode: DoseMode;
  effort: Effort | null;
}

const felt = (effort: Effort | null): string => (effort ? say.reasons.felt(effort) : '');

/** `12 reps clean, felt medium`. */
const reached = ({ amount, mode, effort }: Done): string => say.reasons.reached(amount, UNIT_WORDS[mode], felt(effort));

/** `9 reps, felt hard with heels lift`. */
function told({ amount, mode, effort, faults }: Done & { faults: readonly (string | null)[] }): string {
  const faulty = faults.length > 0 ? say.reasons.withFaults(faultsWords(faults)) : '';
  return effort === 'failed'
    ? say.reasons.failedAt(amount, faulty)
    : `${amount} ${UNIT_WORDS[mode]}${felt(effort)}${faulty}`;
}

const jumped = ({ from, to, share }: { from: string; to: string; share: number }): string =>
  say.reasons.fromToIs(from, to, percent(share));

const also = (held: Held | null): string => (held ? say.reasons.heldToday(heldWords(held)) : '');

const PICKED_WORDS: Readonly<Record<(typeof PICKED)[number], string>> = say.reasons.pickedWords;

/** One reason as a sentence. */
export function reasonWords(reason: LineReason, nameOf: NameOf): string {
  switch (reason.code) {
    case 'sharp-pain':
      return say.reasons.sharpPainThisMovementIs;
    case 'stop-fault':
      return say.reasons.stopTheSetAndSort(reason.fault ?? nameless);
    case 'more-in-it':
      return say.reasons.onlyThereIsMoreIn(reason.amount, felt(reason.effort), reason.next);
    case 'dull-pain':
      return say.reasons.dullPainWasReportedNothing;
    case 'unclean':
      return say.reasons.nothingGoesUpBeforeA(faultsWords(reason.faults));
    case 'once-more':
      return `${
        reason.effort === null
          ? say.reasons.howItFeltWasNot(reason.amount, UNIT_WORDS[reason.mode])
          : say.reasons.hardAt(reason.amount, UNIT_WORDS[reason.mode])
      }: ${reason.next < reason.amount ? say.reasons.nextClean(reason.next) : say.reasons.doItOnceMoreClean}.`;
    case 'more':
      return say.reasons.nextUpToBeforeMore(
        reason.amount,
        felt(reason.effort),
        reason.next,
        reason.high,
        reason.loaded,
      );
    case 'first-weight':
      return say.reasons.nowWithFrom(reached(reason), reason.to, reason.next);
    case 'no-spotter':
      return say.reasons.noSpotterNotAboveKg(reached(reason), reason.kg);
    case 'next-rung':
      return say.reasons.timeForTheNextRung(reached(reason));
    case 'nothing-heavier':
      return say.reasons.andNothingHeavierIsHere(reached(reason));
    case 'next-load':
      return say.reasons.nextIs(reached(reason), reason.to);
    case 'heavier':
      return say.reasons.heavier(reached(reason), percent(reason.share), reason.to, reason.next);
    case 'longer-first':
      return say.reasons.longerFirst(jumped(reason));
    case 'earned':
      return say.reasons.andRepsHereEarnIt(jumped(reason), reason.amount, reason.next);
    case 'too-far':
      return say.reasons.tooFarToReachBy(jumped(reason));
    case 'reps-first':
      return say.reasons.reachRepsWithFirst(jumped(reason), reason.reps, reason.from);
    case 'lighter':
      return say.reasons.downToForClean(told(reason), reason.to, reason.next);
    case 'without-weight':
      return say.reasons.withoutTheWeightForClean(told(reason), reason.next);
    case 'easier-movement':
      return say.reasons.andNothingLighterIsHere(told(reason), reason.loaded);
    case 'back-to':
      return say.reasons.backToWithGoodForm(told(reason), reason.next);
    case 'closed':
      return say.reasons.closedBy(closingWords(reason.by));
    case 'first-bare':
      return say.reasons.firstTimeWithoutAWeight;
    case 'first-low':
      return say.reasons.firstTimeTheLowEnd;
    case 'first-lightest':
      return say.reasons.firstTimeTheLightestThere(reason.to);
    case 'first-light':
      return say.reasons.firstTimeALightStart(reason.to);
    case 'first-related':
      return say.reasons.firstTimeGoingBy(reason.to, weightWords(reason.kg), nameOf(reason.movementId).toLowerCase());
    case 'first-years':
      return say.reasons.firstTimeAUsualStart(reason.to, reason.years);
    case 'first-after':
      return say.reasons.firstTimeAUsualStartAfter(reason.to, nameOf(reason.movementId).toLowerCase());
    case 'uncounted':
      return say.reasons.doneByTheClockBefore;
    case 'pieces': {
      const done = holdWords(reason.done);
      if (reason.held) return say.reasons.theSameAgain(done, also(reason.held));
      const goal = reason.next.length === 1 ? say.reasons.inOneNow : say.reasons.next(holdWords(reason.next));
      return say.reasons.beforeSInOne(done, goal, sum(reason.next));
    }
    case 'parts': {
      const next = partsWords(reason.next);
      const weight = reason.to === null ? '' : say.reasons.alsoWith(reason.to);
      if (reason.way === 'same') return say.reasons.theSamePartsAgain(weight, also(reason.held));
      return reason.way === 'more'
        ? say.reasons.allPartsDoneNext(next, weight)
        : say.reasons.notToTheEndNext(next, weight);
    }
    case 'replaced':
      return say.reasons.isNotHereAndFeel(
        weightWords(reason.kg),
        reason.to,
        reason.amount,
        UNIT_WORDS[reason.mode],
        also(reason.held),
      );
    case 'only-heavier':
      return say.reasons.onlyIsHereInPlace(
        reason.to,
        weightWords(reason.kg),
        reason.held ? heldWords(reason.held) : say.reasons.noSpotter,
      );
    case 'held':
      return also(reason.held).trim();
    case 'after-away':
      return say.reasons.firstTimeAfterWeeks(reason.weeks, reason.to, reason.next);
    case 'ready':
      return say.reasons.readyToGoBackTo(reason.been, nameOf(reason.movementId), signWords(reason.sign));
    case 'same-again':
      return say.reasons.cleanFeltTheSameAgain(reason.amount, UNIT_WORDS[reason.mode], reason.effort);
    case 'test-due':
      return say.reasons.lastTestedWeeksAgo(reason.weeks);
    case 'effort-unknown':
      return say.reasons.effortWasNotNoted;
    case 'picked':
      return `${PICKED_WORDS[reason.how]}${reason.care ? say.reasons.withCare : ''}.`;
    case 'for-day':
      return say.reasons.moreOfItForWho(DAY_WORDS[reason.day]);
    case 'kept-from-last-time':
      return say.reasons.keptFromLastTime;
    case 'moved':
      return say.reasons.moved(reason.way === 'up', nameOf(reason.movementId));
    case 'instead':
      return say.reasons.insteadOf(nameOf(reason.movementId), closingWords(reason.by));
    case 'prepares':
      return say.reasons.preparesWhatTheSessionUses;
    case 'eases':
      return say.reasons.easesWhatTheSessionUsed;
    case 'combines':
      return say.reasons.bothInOneRepAfter;
    case 'written':
      return reason.words;
  }
}

/** How the movement in hand differs from last time. */
export function sinceWords(since: SinceLast, nameOf: NameOf): string {
  switch (since.code) {
    case 'new':
      return say.reasons.newToThisClient;
    case 'movement':
      return say.reasons.lastTimeNow(nameOf(since.from).toLowerCase(), nameOf(since.to).toLowerCase());
    case 'weight':
      return say.reasons.lastTimeKgNowKg(since.from, since.to);
  }
}

/** All reasons of a line, as they are read. */
export const whyWords = (why: readonly LineReason[], nameOf: NameOf): string =>
  why.map((reason) => reasonWords(reason, nameOf)).join(' ');
