/** The set in hand: which one, which side, how much and with what, its time and its tempo; one tap logs it, one more says how it felt, one takes the next dose. */
import type { Test } from '@waxwing/core/client';
import { amountOfParts, atHand, type Load, loadsOpen, partsUntil, SAME_KG } from '@waxwing/core/dosage';
import {
  atStay,
  begin,
  capNow,
  doseNow,
  draft,
  dropNow,
  dropOffered,
  heldNow,
  type LaneView,
  logSet,
  movementOf,
  partsToClean,
  seriousFaults,
  setLoad,
  type SharedKit,
  sharedKit,
  sideNext,
  startTimer,
  timerOf,
  weighable,
} from '@waxwing/core/floor';
import { label, type MovementSummary } from '@waxwing/core/movement';
import type { Drop } from '@waxwing/core/planning';
import { windowFor } from '@waxwing/core/progress';
import {
  clustersOf,
  cutTo,
  progressOf,
  type SetSide,
  sidesInLine,
  type Timer,
  timerAt,
  totalsOf,
  workedSeconds,
} from '@waxwing/core/session';
import { ArrowLeftRight, Pause, Play } from 'lucide-react';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { useKeys } from '../shell/use-keys';
import { Marked } from '../words/marked';
import { firstName } from '../words/names';
import { heldWords } from '../words/reasons';
import { say } from '../words/say';
import { floorClock, useLaneTime, useTimed } from './clock';
import { DropPanel } from './drop-panel';
import { PHASES } from './lane-strip';
import { LoadSheet } from './load-sheet';
import { canEnd, type Ended, PartsRow, partsTotalWords } from './parts-row';
import { RaiseSheet } from './raise-sheet';
import { RestEffort } from './rest-effort';
import { SetUpNote } from './set-up';
import { Stepper } from './stepper';
import { TestHead, TestOutcome } from './test-words';
import { useTap } from './use-tap';

interface Props {
  view: LaneView;
  /** Everybody in the session. */
  views: readonly LaneView[];
  despite: string | null;
}

export function SetPanel(props: Props) {
  const { view } = props;
  const [asked, ask] = useState<string | null>(null);
  const planned = dropNow(view);
  const offered = dropOffered(view);
  const setId = view.justDone?.set.id;
  const drop = planned ?? (asked === setId ? offered : null);
  if (drop) return <DropPanel view={view} drop={drop} />;
  // While a set is rested from, it can still go on.
  const onDrop = offered && view.rest && setId !== undefined ? () => ask(setId) : undefined;
  return view.movement ? <Sets {...props} movement={view.movement} lighter={offered} onLighter={onDrop} /> : null;
}

/** The loads next to the one in hand, which may be one that the kit does not have any more. */
function neighboursOf(
  load: Load | null,
  loads: readonly Load[],
): { lighter: Load | undefined; heavier: Load | undefined } {
  const at = load ? loads.findIndex((other) => other.label === load.label && other.kg === load.kg) : -1;
  if (at >= 0 || !load) return { lighter: at > 0 ? loads[at - 1] : undefined, heavier: loads[at + 1] };
  const kg = load.kg ?? 0;
  return {
    lighter: loads.findLast((other) => other.kg !== null && other.kg < kg),
    heavier: loads.find((other) => other.kg !== null && other.kg > kg),
  };
}

const NOTHING_DONE = { done: 0, setNumber: 1, half: false } as const;

const OTHER_SIDE: Readonly<Record<SetSide, SetSide>> = { left: 'right', right: 'left', both: 'both' };

const sumOf = (pieces: readonly number[]): number => pieces.reduce((all, piece) => all + piece, 0);

/** The pieces that a hold was broken into so far; none where it is in one. */
const piecesOf = (timer: Timer | undefined, now: number): number[] => {
  const pieces = timer && timer.pauses.length > 0 ? clustersOf(timer, now).filter((seconds) => seconds > 0) : [];
  return pieces.length > 1 ? pieces : [];
};

interface SetsProps extends Props {
  movement: MovementSummary;
  /** What the set just done can go on with at once, though nobody planned it. */
  lighter: Drop | null;
  onLighter: (() => void) | undefined;
}

function Sets({ view, views, movement, despite, lighter: drop, onLighter }: SetsProps) {
  const tap = useTap(view.client.id);
  const { entry, step } = view;
  const { mode } = movement.dose;
  const window = windowFor(movement, view.programme?.plan.purpose ?? 'strength');
  const sides = sidesInLine(view.steps, step?.itemId ?? null, movement.sides);
  const progress = { ...(entry ? progressOf(entry, sides) : NOTHING_DONE), side: sideNext(view) };
  const [chosen, chooseSide] = useState<SetSide | null>(null);
  const sideNow = progress.half ? progress.side : (chosen ?? progress.side);
  // A round that has its side from the plan has no other first.
  const roundSide = step?.lane.side;
  const totals = entry && totalsOf(entry, movement.sides, mode);
  const dose = doseNow(view);
  const { parts, test } = dose ?? {};
  const [ended, endIn] = useState<Ended | null>(null);
  const loads = atHand(loadsOpen(movement, view.standing.limits, view.place.kit), dose?.load?.item ?? null);
  const held = heldNow(view);
  const timer = timerOf(view);
  const counted = entry?.counted[sideNow] ?? 0;

  const [typed, type] = useState<number | null>(null);
  const worked = useTimed((now) => {
    if (!timer || mode !== 'time') return null;
    const pieces = piecesOf(timer, now);
    return pieces.length > 0 ? sumOf(pieces) : workedSeconds(timer, now);
  });
  // A fault that was marked since the last set ends what must be clean.
  const marked = seriousFaults(view).find(({ id }) => entry?.unplaced.includes(id));
  const unclean = test?.seconds === null ? marked?.name : undefined;
  const isOver = useTimed((now) => timer !== undefined && timerAt(timer, now).phase === 'over');
  // The other side does what the first one did.
  const other = progress.half ? entry?.sets.findLast((set) => set.side === OTHER_SIDE[sideNow])?.amount : undefined;
  const measures = test && test.unit !== 'kg';
  const planned = dose && (roundSide === 'alternating' ? dose.amount * 2 : dose.amount);
  const amount = typed ?? (counted > 0 ? counted : (worked ?? (measures ? 0 : (other ?? planned ?? window.low))));
  const load = dose?.load ?? null;
  const { lighter, heavier } = neighboursOf(load, loads);
  const cap = capNow(view, load);
  const alone = cap !== null && (heavier?.kg ?? 0) > cap + SAME_KG;
  const paused = timer?.pauses.at(-1)?.to === null;
  // The second at which a hold broke is seen to the second.
  const by = mode === 'reps' || paused ? 1 : 5;
  const unit = mode === 'reps' ? 'reps' : mode === 'time' ? 'seconds' : 'metres';
  const side = sideNow === 'both' ? '' : say.floor.sideOf(label(sideNow));

  const fresh = (entry?.sets.length ?? 0) === 0;
  // What was planned outside of the usual window was planned so.
  const aim =
    planned !== undefined && (planned < window.low || planned > window.high)
      ? `${planned}`
      : `${window.low}–${window.high}`;
  const take = (to: Load) => tap(setLoad(view, to, uuidv7));
  const [choosing, choose] = useState(false);
  const [raising, raise] = useState(false);
  const log = () => {
    if (parts) {
      const done = ended ? partsUntil(parts, ended.index, ended.count) : parts;
      tap(
        logSet(view, amountOfParts(done), load, uuidv7, { side: sideNow, parts: done, despite: despite ?? undefined }),
      );
      endIn(null);
      chooseSide(null);
      return;
    }
    const held = mode === 'time' ? piecesOf(timer, floorClock.now()) : [];
    const pieces = typed === null ? held : (cutTo(held, typed) ?? []);
    tap(logSet(view, amount, load, uuidv7, { side: sideNow, pieces, despite: despite ?? undefined }));
    type(null);
    chooseSide(null);
  };
  const count = () =>
    tap(atStay(view, uuidv7, (entryId) => [draft(uuidv7(), 'rep-counted', { entryId, side: sideNow })]));
  const runs = timer !== undefined && !isOver && !paused;
  const runTimer = () => {
    // From here on the clock speaks again, less what was taken off the piece that broke.
    const cut = paused && typed !== null && worked !== null ? worked - typed : 0;
    type(null);
    if (!timer) tap(startTimer(view, sideNow, uuidv7));
    else if (isOver) tap([draft(uuidv7(), 'timer-extended', { timerId: timer.id })]);
    else if (paused) tap([draft(uuidv7(), 'timer-resumed', { timerId: timer.id, ...(cut > 0 && { cut }) })]);
    else tap([draft(uuidv7(), 'timer-paused', { timerId: timer.id })]);
  };
  useKeys(['s'], log);
  useKeys(['c'], () => mode === 'reps' && !parts && count());
  const shared = JSON.parse(useTimed((now) => JSON.stringify(sharedKit(view, views, now)))) as SharedKit[];
  // One piece does not run in two lanes; what runs here already may be stopped.
  const waits = !timer && shared.some(({ busy }) => busy);
  useKeys(['g'], () => !waits && runTimer());

  return (
    <section aria-label={say.floor.set} className="border-base-300 border-t px-5 py-3">
      <AloneFirst view={view} />
      {test && <TestHead view={view} test={test} />}
      <div className="mb-2 flex min-h-14 flex-wrap items-center gap-x-4 gap-y-1 max-sm:gap-x-2">
        <div className="min-w-0 flex-1">
          <p role="status" className="text-3xl leading-tight font-bold whitespace-nowrap">
            <Marked
              words={say.floor.setOf(step?.set ?? progress.setNumber, step?.of ?? window.sets.join('–'))}
              as={(of) => <span className="quiet text-xl font-normal">{of}</span>}
            />
            {side && progress.half && <span className="ml-3">{side}</span>}
          </p>
          {roundSide && (
            <p className="text-2xl leading-tight font-bold">
              {roundSide === 'alternating' ? say.floor.sidesInTurn : say.floor.sideOnly(label(roundSide))}
            </p>
          )}
          {side && !progress.half && !roundSide && (
            <button
              type="button"
              className="target flex items-center gap-2 text-2xl leading-tight font-bold underline underline-offset-4"
              aria-label={say.floor.firstBeginWithThe(side, OTHER_SIDE[sideNow])}
              onClick={() => chooseSide(OTHER_SIDE[sideNow])}
            >
              {say.floor.sideFirst(side)}
              <ArrowLeftRight aria-hidden size={20} />
            </button>
          )}
          <div className="quiet leading-tight">
            {parts ? partsTotalWords(parts) : measures ? '' : say.floor.aim(aim, unit)}
            {totals && totals.sets > 0
              ? say.floor.soFar(
                  movement.sides === 'each' ? say.floor.leftRight(totals.left, totals.right) : totals.amount,
                )
              : ''}
            {!fresh && <SetUpNote view={view} movement={movement} />}
          </div>
        </div>
        <TimeBox view={view} />
        {mode === 'reps' && !parts && (
          <button type="button" className="btn target px-3 max-[380px]:px-2" onClick={count}>
            {say.floor.count(counted > 0 ? ` ${counted}` : '')}
          </button>
        )}
        {!(measures && test.seconds === null && mode === 'reps') && (
          <button
            type="button"
            className="btn target px-3 max-[380px]:px-2"
            aria-pressed={runs}
            disabled={waits}
            onClick={runTimer}
          >
            {runs ? <Pause aria-hidden size={20} /> : <Play aria-hidden size={20} />}
            {timer
              ? runs
                ? mode === 'time'
                  ? say.floor.broke
                  : say.common.pause
                : say.common.goOn
              : test?.seconds
                ? say.floor.startS(test.seconds)
                : mode === 'reps'
                  ? say.common.tempo
                  : say.common.start}
          </button>
        )}
      </div>
      <div className="flex flex-wrap items-stretch gap-2">
        {!parts && (
          <Stepper
            name={unit}
            value={String(amount)}
            onLess={amount >= by ? () => type(amount - by) : undefined}
            onMore={() => type(amount + by)}
          />
        )}
        {parts && ended && (
          <Stepper
            name="of it"
            value={String(ended.count)}
            onLess={canEnd(parts, ended, -1) ? () => endIn({ ...ended, count: ended.count - 1 }) : undefined}
            onMore={canEnd(parts, ended, 1) ? () => endIn({ ...ended, count: ended.count + 1 }) : undefined}
          />
        )}
        {(loads.length > 0 || weighable(movement).length > 0) && (
          // On a phone what is pressed most stands first.
          <div className="flex max-sm:order-1">
            <Stepper
              name="load"
              value={load?.label ?? 'none'}
              wide
              onLess={step && lighter && (() => take(lighter))}
              onMore={step && heavier && !held && !alone ? () => take(heavier) : undefined}
              onOpen={step && (() => choose(true))}
            />
          </div>
        )}
        <button
          type="button"
          className="btn btn-primary h-auto min-h-16 min-w-40 flex-1 text-2xl max-sm:min-w-28 max-sm:basis-0 max-sm:px-2 max-sm:text-xl"
          onClick={log}
        >
          {test && measures
            ? endWords(test, amount, sideNow)
            : ended
              ? say.floor.doneToHere
              : side
                ? say.floor.sideDone(label(sideNow))
                : say.floor.setDone}
        </button>
      </div>
      {parts && <PartsRow view={view} parts={parts} ended={ended} onEnd={endIn} />}
      <div className="flex flex-wrap items-center gap-x-6">
        {fresh && <SetUpNote view={view} movement={movement} />}
        {drop && onLighter && (
          <button type="button" className="target flex items-center underline underline-offset-4" onClick={onLighter}>
            {say.floor.onAtOnceWith(drop.load.label)}
          </button>
        )}
        {!heavier && !held && !measures && step && (
          <button
            type="button"
            className="target flex items-center underline underline-offset-4"
            onClick={() => raise(true)}
          >
            {load ? say.floor.nothingHeavierHereHarderOtherwise : say.floor.harderOtherwise}
          </button>
        )}
      </div>
      {shared.map(({ what, name, busy }) => (
        <p key={`${what} ${name}`} role="status" className="mt-1 font-bold">
          {busy
            ? say.floor.hasTheNow(firstName({ name }), what)
            : say.floor.onlyOneForTooTake(what, firstName({ name }))}
        </p>
      ))}
      {choosing && (
        <LoadSheet
          view={view}
          movement={movement}
          load={load}
          loads={loads}
          held={held && heldWords(held)}
          onClose={() => choose(false)}
        />
      )}
      {raising && <RaiseSheet view={view} onClose={() => raise(false)} />}
      {heavier && held && <p className="quiet mt-1">{say.floor.notHeavier(heldWords(held))}</p>}
      {alone && !held && <p className="mt-1 font-bold">{say.floor.heavierWithSpotter}</p>}
      {despite && <p className="text-error mt-1 font-bold">{say.floor.allTheSame(despite)}</p>}
      {unclean && (
        <p role="alert" className="text-error mt-1 text-2xl font-bold">
          {say.floor.theTestEndsHere(unclean)}
        </p>
      )}
      <TestOutcome view={view} />
      <RestEffort view={view} />
    </section>
  );
}

/** What logs a test: `End at 14`, `Left: end at 32 s`. */
function endWords({ unit, seconds }: Test, amount: number, side: SetSide): string {
  const at = `${amount}${unit === 'reps' ? '' : ` ${unit}`}`;
  const words = seconds === null ? say.floor.endAt(at) : say.floor.timeIs(at);
  return side === 'both' ? words.charAt(0).toUpperCase() + words.slice(1) : `${label(side)}: ${words}`;
}

/** A combination comes after its parts: what was not clean alone yet is one tap away. */
function AloneFirst({ view }: { view: LaneView }) {
  const tap = useTap(view.client.id);
  const parts = partsToClean(view);
  if (parts.length === 0) return null;
  const names = parts.map((id) => (movementOf(view, id)?.name ?? id).toLowerCase());
  return (
    <div role="note" className="mb-2 flex flex-wrap items-center gap-2">
      <p className="font-bold">{say.floor.notTogetherYetCleanAlone(names.join(say.common.and))}</p>
      {parts.map((id, i) => (
        <button
          key={id}
          type="button"
          className="btn target"
          onClick={() => tap(begin(view, id, say.floor.aloneFirst, uuidv7, 1))}
        >
          {say.floor.doAlone(names[i] ?? '')}
        </button>
      ))}
    </div>
  );
}

/** The clock of the lane, large; its last seconds stand out. */
function TimeBox({ view }: { view: LaneView }) {
  const { phase, words, left, beat } = useLaneTime(view);
  const timer = timerOf(view);
  const pieces = piecesOf(timer, floorClock.now());
  const { word, Icon } = PHASES[phase];
  if (phase === 'idle') return null;
  const soon = (phase === 'work' || phase === 'rest') && left <= 3 && beat === null;
  return (
    <p
      role="timer"
      aria-label={word}
      className={`flex items-center gap-2 px-2 text-4xl leading-none font-bold whitespace-nowrap ${
        soon || phase === 'ready' ? 'bg-accent text-accent-content' : ''
      }`}
    >
      <Icon aria-hidden size={24} fill={phase === 'rest' ? 'none' : 'currentColor'} />
      <span className="text-xl">{word}</span>
      {words}
      {beat && <span className="text-2xl">{beat}</span>}
      {pieces.length > 0 && <span className="text-xl font-normal">{say.floor.brokenInto(pieces)}</span>}
    </p>
  );
}
