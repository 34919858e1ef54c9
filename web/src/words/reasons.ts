/** Why a line of a plan, a next dose or a next rung is what it is: the one place where these reasons become sentences. */
import type { Ease } from '@waxwing/core/client';
import { holdWords, partsWords } from '@waxwing/core/dosage';
import { CLOSED_BY } from '@waxwing/core/formats';
import { signWords } from '@waxwing/core/ladder';
import type { SinceLast } from '@waxwing/core/floor';
import { demandWords, inWords, UNIT_WORDS, weightWords, type DoseMode, type Effort } from '@waxwing/core/movement';
import type { LineReason, PICKED } from '@waxwing/core/planning';
import type { Closing, Held } from '@waxwing/core/progress';

/** The name of a movement; its id where it is in no list any more. */
export type NameOf = (movementId: string) => string;

const nameless = 'a fault that was open last time';
const faultWords = (fault: string | null): string => fault?.toLowerCase() ?? nameless;
const faultsWords = (faults: readonly (string | null)[]): string => faults.map(faultWords).join(', ');

const percent = (share: number): string => `${Math.round(share * 100)} %`;
const sum = (pieces: readonly number[]): number => pieces.reduce((all, one) => all + one, 0);

/** Why a day asks for ease: `poor sleep, sore knee`. */
export function easeWords(ease: Ease): string {
  switch (ease.code) {
    case 'clearance':
      return 'waiting for clearance';
    case 'some':
      return 'an easy day';
    case 'today':
      return [
        ...(ease.sleep ? ['poor sleep'] : []),
        ...(ease.energy ? ['little energy'] : []),
        ...ease.sore.map((region) => `sore ${inWords(region)}`),
      ].join(', ');
  }
}

/** Why nothing goes up: `first solve: heels lift`. */
export function heldWords(held: Held): string {
  switch (held.code) {
    case 'open-fault':
      return `first solve: ${faultWords(held.fault)}`;
    case 'pain':
      return 'not after pain today';
    case 'failed':
      return 'not after a failed set';
    case 'marked':
      return 'last time tiredness began to cost form';
    case 'strain':
      return 'a limit on holding the breath';
    case 'ease':
      return easeWords(held.ease);
  }
}

const closingWords = (by: readonly Closing[]): string =>
  by.map((one) => (one.code === 'limit' ? `a limit on ${demandWords(one.demand)}` : CLOSED_BY[one.code])).join('; ');

interface Done {
  amount: number;
  mode: DoseMode;
  effort: Effort | null;
}

const felt = (effort: Effort | null): string => (effort ? `, felt ${effort}` : '');

/** `12 reps clean, felt medium`. */
const reached = ({ amount, mode, effort }: Done): string => `${amount} ${UNIT_WORDS[mode]} clean${felt(effort)}`;

/** `9 reps, felt hard with heels lift`. */
function told({ amount, mode, effort, faults }: Done & { faults: readonly (string | null)[] }): string {
  const faulty = faults.length > 0 ? ` with ${faultsWords(faults)}` : '';
  return effort === 'failed' ? `Failed at ${amount}${faulty}` : `${amount} ${UNIT_WORDS[mode]}${felt(effort)}${faulty}`;
}

const jumped = ({ from, to, share }: { from: string; to: string; share: number }): string =>
  `From ${from} to ${to} is ${percent(share)}`;

const also = (held: Held | null): string => (held ? ` Held today: ${heldWords(held)}.` : '');

const PICKED_WORDS: Readonly<Record<(typeof PICKED)[number], string>> = {
  new: 'New, near the easy end',
  'too-hard-before': 'Too hard last time',
  'rung-down': 'A rung down: the one above was too hard last time',
  'rung-ready': 'Ready for this rung',
  'rung-below': 'A rung below the last one',
  'rung-of-last-time': 'The rung of last time',
};

/** One reason as a sentence. */
export function reasonWords(reason: LineReason, nameOf: NameOf): string {
  switch (reason.code) {
    case 'sharp-pain':
      return 'Sharp pain: this movement is over for today.';
    case 'stop-fault':
      return `${reason.fault ?? nameless}: stop the set and sort it out before another rep.`;
    case 'more-in-it':
      return `Only ${reason.amount}${felt(reason.effort)}: there is more in it, ${reason.next} next.`;
    case 'dull-pain':
      return 'Dull pain was reported: nothing goes up today.';
    case 'unclean':
      return `Nothing goes up before a clean set (seen: ${faultsWords(reason.faults)}).`;
    case 'once-more':
      return `${
        reason.effort === null
          ? `${reason.amount} ${UNIT_WORDS[reason.mode]}, how it felt was not noted`
          : `Hard at ${reason.amount} ${UNIT_WORDS[reason.mode]}`
      }: ${reason.next < reason.amount ? `${reason.next} next, clean` : 'do it once more, clean'}.`;
    case 'more':
      return `${reason.amount}${felt(reason.effort)}: ${reason.next} next, up to ${reason.high} before ${
        reason.loaded ? 'more weight' : 'the next rung'
      }.`;
    case 'first-weight':
      return `${reached(reason)}: now with ${reason.to}, from ${reason.next}.`;
    case 'no-spotter':
      return `${reached(reason)}. No spotter: not above ${reason.kg} kg, so slow the lowering.`;
    case 'next-rung':
      return `${reached(reason)}: time for the next rung.`;
    case 'nothing-heavier':
      return `${reached(reason)}, and nothing heavier is here: slow the lowering to make it count.`;
    case 'next-load':
      return `${reached(reason)}: next is ${reason.to}.`;
    case 'heavier':
      return `${reached(reason)}: up ${percent(reason.share)} to ${reason.to}, from ${reason.next} again.`;
    case 'longer-first':
      return `${jumped(reason)}: longer first.`;
    case 'earned':
      return `${jumped(reason)}, and ${reason.amount} reps here earn it: ${reason.next} there.`;
    case 'too-far':
      return `${jumped(reason)}: too far to reach by reps, so pause at the hard place.`;
    case 'reps-first':
      return `${jumped(reason)}: reach ${reason.reps} reps with ${reason.from} first.`;
    case 'lighter':
      return `${told(reason)}: down to ${reason.to} for ${reason.next}, clean.`;
    case 'without-weight':
      return `${told(reason)}: without the weight for ${reason.next}, clean.`;
    case 'easier-movement':
      return `${told(reason)}${reason.loaded ? ', and nothing lighter is here' : ''}: take an easier movement.`;
    case 'back-to':
      return `${told(reason)}: back to ${reason.next}, with good form.`;
    case 'closed':
      return `Closed by ${closingWords(reason.by)}.`;
    case 'first-bare':
      return 'First time: without a weight, to learn it clean.';
    case 'first-low':
      return 'First time: the low end, to learn it clean.';
    case 'first-lightest':
      return `First time: the lightest there is, ${reason.to}, to learn it clean.`;
    case 'first-light':
      return `First time: ${reason.to}, a light start, to learn it clean.`;
    case 'first-related':
      return `First time: ${reason.to}, about half of what ${weightWords(reason.kg)} in ${nameOf(reason.movementId).toLowerCase()} says, to learn it clean.`;
    case 'first-years':
      return `First time: ${reason.to}, a usual start after ${reason.years} ${reason.years === 1 ? 'year' : 'years'} of training, to learn it clean.`;
    case 'first-after':
      return `First time: ${reason.to}, a usual start after clean sets of ${nameOf(reason.movementId).toLowerCase()}, to learn it clean.`;
    case 'uncounted':
      return 'Done by the clock before and never counted: the low end, counted.';
    case 'pieces': {
      const done = holdWords(reason.done);
      if (reason.held) return `${done}: the same again.${also(reason.held)}`;
      const goal = reason.next.length === 1 ? 'in one now' : `next ${holdWords(reason.next)}`;
      return `${done}: ${goal}, before ${sum(reason.next)} s in one.`;
    }
    case 'parts': {
      const next = partsWords(reason.next);
      const weight = reason.to === null ? '' : `, with ${reason.to}`;
      if (reason.way === 'same') return `The same parts again${weight}.${also(reason.held)}`;
      return reason.way === 'more'
        ? `All parts done: next ${next}${weight}.`
        : `Not to the end: next ${next}${weight}.`;
    }
    case 'replaced':
      return `${weightWords(reason.kg)} is not here: ${reason.to}, and ${reason.amount} ${UNIT_WORDS[reason.mode]} feel about the same.${also(reason.held)}`;
    case 'only-heavier':
      return `Only ${reason.to} is here in place of ${weightWords(reason.kg)}, and nothing gets heavier: ${
        reason.held ? heldWords(reason.held) : 'no spotter'
      }.`;
    case 'held':
      return also(reason.held).trim();
    case 'ready':
      return `Ready ${reason.been ? 'to go back to' : 'for'} ${nameOf(reason.movementId)}: ${signWords(reason.sign)}.`;
    case 'same-again':
      return `${reason.amount} ${UNIT_WORDS[reason.mode]} clean${reason.effort ? `, felt ${reason.effort}` : ''}: the same again until the sign for the next rung is met.`;
    case 'test-due':
      return `Last tested ${reason.weeks} weeks ago.`;
    case 'effort-unknown':
      return '(Effort was not noted.)';
    case 'picked':
      return `${PICKED_WORDS[reason.how]}${reason.care ? ', with care' : ''}.`;
    case 'kept-from-last-time':
      return 'Kept from last time.';
    case 'moved':
      return `${reason.way === 'up' ? 'Up' : 'Down'} from ${nameOf(reason.movementId)}:`;
    case 'instead':
      return `Instead of ${nameOf(reason.movementId)}: ${closingWords(reason.by)}.`;
    case 'prepares':
      return 'Prepares what the session uses.';
    case 'eases':
      return 'Eases what the session used.';
    case 'combines':
      return 'Both in one rep, after each was done alone.';
    case 'written':
      return reason.words;
  }
}

/** How the movement in hand differs from last time. */
export function sinceWords(since: SinceLast, nameOf: NameOf): string {
  switch (since.code) {
    case 'new':
      return 'New to this client';
    case 'movement':
      return `Last time ${nameOf(since.from).toLowerCase()}, now ${nameOf(since.to).toLowerCase()}`;
    case 'weight':
      return `Last time ${since.from} kg, now ${since.to} kg`;
  }
}

/** All reasons of a line, as they are read. */
export const whyWords = (why: readonly LineReason[], nameOf: NameOf): string =>
  why.map((reason) => reasonWords(reason, nameOf)).join(' ');
