/**
 * What comes next for a client in a movement: the one policy that plan, floor, review and sheet ask.
 * The order of the law: what is closed; a fault that stops; what holds back; the day (down is always allowed, up never on a bad one);
 * then window, effort and readiness. Nothing that is closed or held back ever leaves it.
 */
import type { PastSession } from '../client/history-schema.js';
import { aimOf } from '../dosage/aim.js';
import { atHand, isImprovised, type Load, loadsOpen, mayGoBare, SAME_KG } from '../dosage/loads.js';
import { ALLOWED_JUMP, type NextKind, nextPieces, type NextSet, nextSet } from '../dosage/next-set.js';
import { amountOfParts, grownParts, lessParts, sameParts } from '../dosage/parts.js';
import { equalEffort, MOST_REPS, REPS_LEFT } from '../dosage/strength.js';
import type { Ladder } from '../ladder/graph.js';
import { readiness } from '../ladder/readiness.js';
import { kitCounts } from '../movement/kit.js';
import type { KitPiece } from '../movement/kit-schema.js';
import type { DoseWindow } from '../movement/schema.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import { beginsWith, longerTurn, parseTempo } from '../movement/tempo.js';
import type { Effort, Purpose } from '../movement/vocabulary.js';
import type { Part } from '../schema/part.js';
import { type Away, awayOn } from './away.js';
import { waysUp } from './come-back.js';
import { firstLoad } from './first-load.js';
import { closingsOf, fitNow, isOpen } from './fit.js';
import { heldBack, mayNotStrain, type OpenFault, seriousOf } from './held.js';
import type { Held, StepReason } from './reason.js';
import { capFor } from './spotter.js';
import type { Standing } from './standing.js';

export type StepKind = 'stop' | 'rung-down' | 'hold' | 'dose' | 'rung-up';

export type StepCode =
  /** The movement itself is closed now. */
  | 'closed'
  /** An open fault ends the set. */
  | 'stop-fault'
  | 'first'
  /** Done by a clock before, and never counted. */
  | 'uncounted'
  /** A hold that was broken is put together again, piece by piece. */
  | 'pieces'
  /** A composed set: one of its parts grows, or the last one goes down. */
  | 'parts'
  /** The weight of last time is not there any more. */
  | 'replaced'
  /** What the dose arithmetic says, as it is. */
  | 'window'
  /** It says more, and something speaks against it. */
  | 'held'
  | 'too-hard'
  /** Its sign for the next rung is met. */
  | 'ready'
  /** The first time after weeks away. */
  | 'after-away'
  /** The dose has come to its end, and the sign is not met yet or nothing above is open. */
  | 'same-again';

export interface NextStep {
  kind: StepKind;
  code: StepCode;
  why: StepReason[];
  /** What the dose arithmetic decided, where it was asked. */
  change: NextKind | null;
  /** To go on with this movement: what with, how much and how. */
  dose: { load: Load | null; amount: number; tempo: string; parts?: Part[] | undefined };
  /** The movement to go to, for a rung down or up; null where none near is open. */
  to: string | null;
}

/** What was done last, on the weaker side. */
export interface Work {
  amount: number;
  /** Null when it was not asked: it then counts as hard. */
  effort: Effort | null;
  /** Reps left by number, where they were asked for. */
  left: number | null;
  kg: number | null;
  /** As it was read; null where only the weight is known. */
  label: string | null;
  /** The pieces of a hold that was broken; null where it was whole. */
  pieces: readonly number[] | null;
  /** What was done of a composed set; null for a plain one. */
  parts: readonly Part[] | null;
}

export interface StepQuestion {
  standing: Standing;
  movement: MovementSummary;
  purpose: Purpose;
  kit: readonly KitPiece[];
  ladder: Pick<Ladder, 'rungs'>;
  find: (movementId: string) => MovementSummary | undefined;
  /** Everything that the client has done, by movement, in any order. */
  sets: Readonly<Record<string, readonly PastSession[]>>;
  /** Null for a first time. */
  work: Work | null;
  /** Open faults of the movement, those seen in the last set included. */
  faults: readonly OpenFault[];
  /** What the plan gives for a set, in a session under way: it is aimed at, even where it lies outside of the usual window. */
  planned?: number | undefined;
  /** The same of a composed set, with its tempo. */
  plannedParts?: readonly Part[] | undefined;
  /** Tiredness cost form the last time. */
  marked?: boolean | undefined;
  /** In a session under way a rung is changed only when the dose has come to its end. */
  within: boolean;
}

/** Sessions with the movement in question. */
export const pastOf = ({ sets, movement }: Pick<StepQuestion, 'sets' | 'movement'>): readonly PastSession[] =>
  sets[movement.id] ?? [];

/** The window of a purpose, or what the movement aims at otherwise. */
export const windowFor = (movement: Pick<MovementSummary, 'dose'>, purpose: Purpose): DoseWindow =>
  movement.dose.windows[purpose] ?? aimOf(movement);

/** A window that holds what was planned as well. */
export const aimedAt = <T extends Pick<DoseWindow, 'low' | 'high'>>(window: T, planned: number | undefined): T =>
  planned === undefined
    ? window
    : { ...window, low: Math.min(window.low, planned), high: Math.max(window.high, planned) };

const UPPER: readonly string[] = ['push', 'pull'];

/** The allowed step in load: a tenth for the upper body, a fifth for the lower. */
export const jumpFor = ({ pattern }: Pick<MovementSummary, 'pattern'>): number =>
  UPPER.includes(pattern) ? ALLOWED_JUMP.upper : ALLOWED_JUMP.lower;

/** What may still happen on a day on which nothing goes up. */
const EASING: readonly NextKind[] = ['hold', 'down', 'rung-down', 'stop'];

/** The tempo that a change asks for: two seconds more to lower, or one more at the hard place. */
function tempoFor(kind: NextKind, { dose: { tempo }, phases }: Pick<MovementSummary, 'dose' | 'phases'>): string {
  const [lower, ...others] = parseTempo(tempo);
  if (kind === 'slower') return [lower + 2, ...others].join('-');
  return kind === 'pause' ? longerTurn(tempo, beginsWith(phases)) : tempo;
}

export function nextStep(question: StepQuestion): NextStep {
  const { standing, movement, purpose, kit, work } = question;
  const planned = question.planned ?? (work?.parts ? work.amount : undefined);
  const window = aimedAt(windowFor(movement, purpose), planned);
  const { tempo } = movement.dose;
  const fit = fitNow(standing, kitCounts(kit), movement);
  const none = { load: null, amount: window.low, tempo };
  if (!isOpen(fit))
    return {
      kind: 'stop',
      code: 'closed',
      why: [{ code: 'closed', by: closingsOf(fit.because) }],
      change: null,
      dose: none,
      to: null,
    };
  const serious = seriousOf(question.faults);
  const stopping = serious.find(({ severity }) => severity === 'stop');
  const open = loadsOpen(movement, standing.limits, kit);
  const bare = mayGoBare(movement, standing.limits, kit);
  if (!work)
    return pastOf(question).length > 0
      ? uncounted(question, window, atHand(open, null), bare)
      : first(question, window, atHand(open, null), bare);
  const load = sameLoad(open, work, bare);
  const usual = atHand(open, load?.item ?? null);
  const capKg = load ? capFor(movement, load, standing.limits, work.kg) : null;
  // Another option may want somebody beside it that this one does not.
  const loads = usual.filter((one) => {
    const cap = capFor(movement, one, standing.limits, work.kg ?? 0);
    return cap === null || capKg !== null || (one.kg ?? 0) <= cap;
  });
  const next = nextSet({
    mode: movement.dose.mode,
    window,
    amount: work.amount,
    effort: work.effort,
    left: work.left,
    load,
    loads,
    bare,
    faults: serious.map(({ name }) => name),
    stopFault: stopping?.name ?? null,
    pain: standing.pain ? 'dull' : null,
    jump: jumpFor(movement),
    capKg,
  });
  return decided(question, window, load, next);
}

function decided(question: StepQuestion, window: DoseWindow, load: Load | null, next: NextSet): NextStep {
  const { standing, movement, work, within } = question;
  const done = work?.amount ?? window.low;
  const at = (
    kind: StepKind,
    code: StepCode,
    why: StepReason,
    dose: Pick<NextStep['dose'], 'load' | 'amount' | 'parts'> = next,
    to: string | null = null,
  ): NextStep => ({
    kind,
    code,
    // A reason that tells how the set felt says itself that nobody noted it.
    why: work?.effort === null && !('effort' in why) ? [why, { code: 'effort-unknown' }] : [why],
    change: next.kind,
    dose: {
      load: dose.load,
      amount: Math.max(1, dose.amount),
      ...(dose.parts && { parts: dose.parts }),
      tempo: tempoFor(code === 'window' ? next.kind : 'hold', movement),
    },
    to,
  });
  const same = { load, amount: Math.min(done, window.high) };
  if (next.kind === 'stop') return at('stop', 'stop-fault', next.why, same);
  if (next.kind === 'rung-down') {
    const to = easierOpen(question);
    return to === null ? lessOfTheSame(question, load, next, at) : at('rung-down', 'too-hard', next.why, next, to);
  }
  const away = within ? null : awayOn(standing.day, pastOf(question), question.sets);
  const held =
    heldBack(standing, question.faults, work?.effort ?? null) ??
    (question.marked ? ({ code: 'marked' } as const) : null) ??
    (away ? ({ code: 'away', weeks: away.weeks } as const) : null);
  // Where only heavier is here nobody begins again with it: it goes on as on any day on which nothing goes up.
  const onlyHeavier = work?.kg != null && (load?.kg ?? 0) > work.kg + SAME_KG;
  if (away && away.share < 1 && !onlyHeavier) return afterAway(question, window, load, next, away);
  const broken = movement.dose.mode === 'time' && (work?.pieces?.length ?? 0) > 1 ? work?.pieces : null;
  if (broken && next.kind !== 'down') {
    const pieces = held ? broken : nextPieces(broken, Math.max(done, window.low));
    return at(
      'hold',
      'pieces',
      { code: 'pieces', done: [...broken], next: [...pieces], held },
      {
        load,
        amount: sum(pieces),
      },
    );
  }
  const strain = heavierThan(next.load, load) && mayNotStrain(standing);
  const composed = composedNext(question, load, next, held ?? (strain ? STRAIN : null));
  if (composed) return at(composed.kind, 'parts', composed.why, composed.dose);
  const up = held ? undefined : readyFor(question);
  const other = next.kind === 'down' || up ? null : replaced(question, window, load);
  if (other) {
    // Heavier with fewer reps is heavier all the same: not on a day on which nothing goes up, and not alone under it.
    const capped = load !== null && capFor(movement, load, standing.limits, work?.kg) !== null;
    const against = held ?? (mayNotStrain(standing) ? STRAIN : null);
    const few = other.amount < FEW_REPS ? ({ code: 'few-reps' } as const) : null;
    if (other.heavier && (against || capped || few)) {
      const why: StepReason = {
        code: 'only-heavier',
        kg: other.was,
        to: other.to,
        held: against ?? (capped ? null : few),
      };
      return at('rung-down', 'replaced', why, same, easierOpen(question));
    }
    const { was: kg, to, amount } = other;
    return at(
      'hold',
      'replaced',
      { code: 'replaced', kg, to, amount, mode: movement.dose.mode, held },
      { load, amount },
    );
  }
  if (held && !EASING.includes(next.kind)) return at('hold', 'held', { code: 'held', held }, same);
  if (strain) return at('hold', 'held', { code: 'held', held: STRAIN }, same);
  if (up && (!within || next.kind === 'rung-up'))
    return at('rung-up', 'ready', { code: 'ready', movementId: up.id, sign: up.sign, ...up.been }, same, up.id);
  if (next.kind === 'rung-up') {
    const why: StepReason = {
      code: 'same-again',
      amount: done,
      mode: movement.dose.mode,
      effort: work?.effort ?? null,
    };
    return at('hold', 'same-again', why, same);
  }
  return at(next.kind === 'hold' ? 'hold' : 'dose', 'window', next.why);
}

/** Fewer reps than these are a test, and no work. */
const FEW_REPS = 4;

/** Nothing easier is open: what can be done of it well, rather than nothing. */
function lessOfTheSame(
  { work, faults, movement }: StepQuestion,
  load: Load | null,
  next: NextSet,
  at: (kind: StepKind, code: StepCode, why: StepReason, dose: Pick<NextStep['dose'], 'load' | 'amount'>) => NextStep,
): NextStep {
  const done = work?.amount ?? next.amount;
  const effort = work?.effort ?? null;
  const amount = Math.max(1, Math.min(next.amount, effort === 'failed' ? done - 2 : done));
  const seen = { amount: done, mode: movement.dose.mode, effort, faults: seriousOf(faults).map(({ name }) => name) };
  return at('hold', 'window', { code: 'back-to', ...seen, next: amount }, { load, amount });
}

/** The first time after weeks away: so much of the load as is left, or of the reps where nothing lighter is there. */
function afterAway(
  question: StepQuestion,
  window: DoseWindow,
  load: Load | null,
  asked: NextSet,
  { weeks, share }: Away,
): NextStep {
  const { standing, movement, kit, work } = question;
  const done = Math.min(work?.amount ?? window.low, window.high);
  // What was too much before is not taken up again because it is long ago.
  const from = asked.kind === 'down' ? asked.load : load;
  const kg = from?.kg ?? null;
  const below = atHand(loadsOpen(movement, standing.limits, kit), from?.item ?? null).filter(
    (one) => kg !== null && one.kg !== null && one.kg <= kg * share + SAME_KG,
  );
  const lighter = below.findLast(({ item }) => item === from?.item) ?? below.at(-1);
  const amount = lighter ? Math.min(done, window.low) : Math.max(1, Math.floor(done * share));
  const to = lighter ?? from;
  const parts = work?.parts && lessParts(work.parts);
  const next = parts ? amountOfParts(parts) : amount;
  const why: StepReason = { code: 'after-away', weeks, to: lighter?.label ?? null, next };
  return {
    kind: 'hold',
    code: 'after-away',
    why: [why],
    change: asked.kind,
    dose: { load: to, amount: next, tempo: movement.dose.tempo, ...(parts && { parts }) },
    to: null,
  };
}

const STRAIN: Held = { code: 'strain' };

const heavierThan = (next: Load | null, load: Load | null): boolean =>
  next !== null && (next.kg === null || load?.kg == null ? next.label !== load?.label : next.kg > load.kg + SAME_KG);

/**
 * A composed set goes on part by part: what was not done to its end gets a little less, what went well grows by one part, and where all are at
 * their end the weight is next. Null for a plain set.
 */
function composedNext({ work, plannedParts }: StepQuestion, load: Load | null, next: NextSet, held: Held | null) {
  if (!work?.parts) return null;
  const done = [...work.parts];
  const asked = [...(plannedParts ?? done)];
  const lighter = next.kind === 'down' ? next.load : load;
  const answer = (way: 'more' | 'same' | 'less', parts: Part[], to = lighter) => ({
    kind: way === 'more' ? ('dose' as const) : ('hold' as const),
    dose: { load: to, amount: amountOfParts(parts), parts },
    why: {
      code: 'parts',
      done,
      next: parts,
      way,
      to: to?.label === load?.label ? null : (to?.label ?? null),
      held: way === 'same' ? held : null,
    } satisfies StepReason,
  });
  if (!sameParts(done, asked) || work.effort === 'failed')
    return answer('less', next.kind === 'down' ? asked : lessParts(asked));
  if (held || EASING.includes(next.kind)) return answer('same', asked);
  const grown = grownParts(asked);
  if (grown) return answer('more', grown);
  return next.kind === 'up' ? answer('more', asked, next.load) : answer('same', asked);
}

/**
 * The dose at another weight than last time's, where that one is not there any more: what was done with 8 kg says nothing of 9 but what
 * feels the same. Null where the weight is the same.
 */
function replaced(
  { movement, work }: StepQuestion,
  window: DoseWindow,
  load: Load | null,
): { amount: number; heavier: boolean; was: number; to: string } | null {
  if (!work?.kg || !load?.kg || Math.abs(load.kg - work.kg) < SAME_KG) return null;
  const { mode } = movement.dose;
  const left = work.left ?? REPS_LEFT[work.effort ?? 'hard'];
  const equal = mode === 'reps' ? equalEffort({ kg: work.kg, reps: work.amount, left }, load.kg)?.aim : null;
  // Without an estimate: as much as before with less, and the low end with more; what the formulas call too heavy is not lifted.
  const heavier = load.kg > work.kg;
  const unknown = !heavier ? work.amount : mode === 'reps' && work.amount + left <= MOST_REPS ? 0 : window.low;
  const amount = Math.min(equal ?? unknown, window.high);
  return { amount: Math.max(1, amount), heavier, was: work.kg, to: load.label };
}

/** Weights before what stands in for them. */
const rank = (load: Load): number => Number(isImprovised(load));

/** The load of last time, or what comes nearest to it from below; a band or nothing where it was not weighed. */
function sameLoad(loads: readonly Load[], { kg, label }: Work, bare: boolean): Load | null {
  if (kg === null && label === null && bare) return null;
  const exact = loads.find((load) => load.label === label && load.kg === kg);
  if (exact) return exact;
  if (kg === null) return loads.find((load) => load.kg === null) ?? null;
  const weighed = loads.filter((load) => load.kg !== null);
  // Which thing it was is not kept: of equal weights the one that takes least time.
  const equal = weighed.filter((load) => Math.abs((load.kg ?? 0) - kg) < SAME_KG);
  const [quickest] = equal.toSorted((a, b) => a.changeSeconds - b.changeSeconds || rank(a) - rank(b));
  if (quickest) return quickest;
  const near = atHand(weighed, null);
  return near.findLast((load) => (load.kg ?? 0) <= kg + 1e-9) ?? near[0] ?? null;
}

function first(question: StepQuestion, window: DoseWindow, loads: readonly Load[], bare: boolean): NextStep {
  const { movement } = question;
  const { load, why } = firstLoad(question, window, loads, bare);
  return {
    kind: 'dose',
    code: 'first',
    why: [why],
    change: null,
    dose: { load, amount: window.low, tempo: movement.dose.tempo },
    to: null,
  };
}

/** It was done, but nobody knows how much: begun anew, at the low end. */
function uncounted(question: StepQuestion, window: DoseWindow, loads: readonly Load[], bare: boolean): NextStep {
  const step = first(question, window, loads, bare);
  return { ...step, code: 'uncounted', why: [{ code: 'uncounted' }] };
}

const sum = (pieces: readonly number[]): number => pieces.reduce((all, one) => all + one, 0);

/** The first easier rung that is open. */
function easierOpen({ standing, kit, ladder, movement, find }: StepQuestion): string | null {
  const counts = kitCounts(kit);
  const open = ladder.rungs.get(movement.id)?.easier.find(({ to }) => {
    const one = find(to);
    return one !== undefined && isOpen(fitNow(standing, counts, one));
  });
  return open?.to ?? null;
}

/** The next rung whose sign is met and that is open. */
function readyFor(question: StepQuestion) {
  const { standing, kit, ladder, movement, find, sets } = question;
  const past = pastOf(question);
  const counts = kitCounts(kit);
  for (const { to, readyWhen } of waysUp(ladder, movement.id, sets)) {
    const one = find(to);
    if (one && readyWhen && readiness(readyWhen, past).ready && isOpen(fitNow(standing, counts, one)))
      return { id: to, sign: readyWhen, been: sets[to] ? { been: true } : {} };
  }
  return undefined;
}

/** How far a client is towards the next rung of a movement; null where no sign is set, or nothing above is open. */
export function towards(question: Pick<StepQuestion, 'standing' | 'kit' | 'ladder' | 'movement' | 'find' | 'sets'>) {
  const counts = kitCounts(question.kit);
  for (const { to, readyWhen } of waysUp(question.ladder, question.movement.id, question.sets)) {
    const one = question.find(to);
    if (one && readyWhen && isOpen(fitNow(question.standing, counts, one)))
      return { id: to, sign: readyWhen, ...readiness(readyWhen, pastOf(question)) };
  }
  return null;
}
