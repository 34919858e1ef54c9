/** The set in hand: which one, which side, how much and with what, its time and its tempo; one tap logs it, one more says how it felt, one takes the next dose. */
import { effortOf, type Load, loadsFor } from '@waxwing/core/dosage';
import {
  atStay,
  doseNow,
  draft,
  heldNow,
  type LaneView,
  logSet,
  type Proposal,
  proposalFor,
  swapTo,
  takeProposal,
  timerOf,
  timerSeconds,
  unanswered,
} from '@waxwing/core/floor';
import { type Effort, EFFORTS, label, type MovementSummary } from '@waxwing/core/movement';
import { windowFor } from '@waxwing/core/progress';
import { clustersOf, progressOf, totalsOf, workedSeconds } from '@waxwing/core/session';
import { Minus, Pause, Play, Plus } from 'lucide-react';
import { useState } from 'react';
import { useKeys } from '../shell/use-keys';
import { floorClock, useLaneTime, useTimed } from './clock';
import { doseWords } from './dose-words';
import { v7 as uuidv7 } from 'uuid';
import { useTap } from './use-tap';
import { PHASES } from './lane-strip';

export const SetPanel = ({ view, despite }: { view: LaneView; despite: string | null }) =>
  view.movement ? <Sets view={view} movement={view.movement} despite={despite} /> : null;

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

const NOTHING_DONE = { done: 0, setNumber: 1 } as const;

function Sets({ view, movement, despite }: { view: LaneView; movement: MovementSummary; despite: string | null }) {
  const tap = useTap(view.client.id);
  const { entry, step } = view;
  const { mode } = movement.dose;
  const window = windowFor(movement, view.programme?.plan.purpose ?? 'strength');
  const progress = entry
    ? progressOf(entry, movement.sides)
    : { ...NOTHING_DONE, side: movement.sides === 'each' ? ('left' as const) : ('both' as const) };
  const totals = entry && totalsOf(entry, movement.sides);
  const dose = doseNow(view);
  const loads = loadsFor(movement.kit, view.studio.kit);
  const held = heldNow(view)?.words ?? null;
  const timer = timerOf(view);
  const counted = entry?.counted[progress.side] ?? 0;

  const [typed, type] = useState<number | null>(null);
  const worked = useTimed((now) => (timer && mode === 'time' ? workedSeconds(timer, now) : null));
  // The other side does what the first one did.
  const other = progress.side === 'right' ? entry?.sets.findLast((set) => set.side === 'left')?.amount : undefined;
  const amount = typed ?? (counted > 0 ? counted : (worked ?? other ?? dose?.amount ?? window.low));
  const load = dose?.load ?? null;
  const { lighter, heavier } = neighboursOf(load, loads);
  const by = mode === 'reps' ? 1 : 5;
  const unit = mode === 'reps' ? 'reps' : mode === 'time' ? 'seconds' : 'metres';
  const side = progress.side === 'both' ? '' : `${label(progress.side)} side`;

  const planned = dose?.amount;
  // What was planned outside of the usual window was planned so.
  const aim =
    planned !== undefined && (planned < window.low || planned > window.high)
      ? `${planned}`
      : `${window.low}–${window.high}`;
  const setLoad = (to: (typeof loads)[number]) => {
    if (step && dose)
      tap([draft(uuidv7(), 'dose-changed', { itemId: step.itemId, amount: dose.amount, load: to, tempo: dose.tempo })]);
  };
  const log = () => {
    tap(logSet(view, amount, load, uuidv7, despite ?? undefined));
    type(null);
  };
  const count = () =>
    tap(atStay(view, uuidv7, (entryId) => [draft(uuidv7(), 'rep-counted', { entryId, side: progress.side })]));
  const runTimer = () => {
    if (!timer)
      tap(
        atStay(view, uuidv7, (entryId) => [
          draft(uuidv7(), 'timer-started', {
            entryId,
            blockId: null,
            side: progress.side,
            work: timerSeconds(view),
            rest: 0,
            count: 1,
          }),
        ]),
      );
    else
      tap([
        draft(uuidv7(), timer.pauses.at(-1)?.to === null ? 'timer-resumed' : 'timer-paused', { timerId: timer.id }),
      ]);
  };
  useKeys(['s'], log);
  useKeys(['c'], () => mode === 'reps' && count());
  useKeys(['g'], runTimer);

  return (
    <section aria-label="Set" className="border-base-300 border-t px-5 py-3">
      <div className="mb-2 flex min-h-14 flex-wrap items-center gap-x-4 gap-y-1">
        <div className="min-w-0 flex-1">
          <p role="status" className="text-3xl leading-tight font-bold whitespace-nowrap">
            Set {step?.set ?? progress.setNumber}{' '}
            <span className="quiet text-xl font-normal">of {step?.of ?? window.sets.join('–')}</span>
            {side && <span className="ml-3">{side}</span>}
          </p>
          <p className="quiet leading-tight">
            aim {aim} {unit}
            {totals && totals.sets > 0
              ? ` · so far ${movement.sides === 'each' ? `${totals.left} left, ${totals.right} right` : totals.amount}`
              : ''}
          </p>
        </div>
        <TimeBox view={view} />
        {mode === 'reps' && (
          <button type="button" className="btn target px-3" onClick={count}>
            Count{counted > 0 ? ` ${counted}` : ''}
          </button>
        )}
        <button
          type="button"
          className="btn target px-3"
          aria-pressed={timer !== undefined && timer.pauses.at(-1)?.to !== null}
          onClick={runTimer}
        >
          {timer && timer.pauses.at(-1)?.to !== null ? <Pause aria-hidden size={20} /> : <Play aria-hidden size={20} />}
          {!timer ? (mode === 'reps' ? 'Tempo' : 'Start') : timer.pauses.at(-1)?.to === null ? 'Go on' : 'Pause'}
        </button>
      </div>
      <div className="flex flex-wrap items-stretch gap-2">
        <Stepper
          name={unit}
          value={String(amount)}
          onLess={amount >= by ? () => type(amount - by) : undefined}
          onMore={() => type(amount + by)}
        />
        {loads.length > 0 && (
          <Stepper
            name="load"
            value={load?.label ?? 'none'}
            wide
            onLess={step && lighter && (() => setLoad(lighter))}
            onMore={step && heavier && !held ? () => setLoad(heavier) : undefined}
          />
        )}
        <button type="button" className="btn btn-primary h-auto min-h-16 min-w-40 flex-1 text-2xl" onClick={log}>
          {side ? `${label(progress.side)} done` : 'Set done'}
        </button>
      </div>
      {heavier && held && <p className="quiet mt-1">Not heavier: {held}.</p>}
      {despite && <p className="text-error mt-1 font-bold">All the same: {despite}.</p>}
      <RestEffort view={view} />
    </section>
  );
}

/** The clock of the lane, large; its last seconds stand out. */
function TimeBox({ view }: { view: LaneView }) {
  const { phase, words, left, beat } = useLaneTime(view);
  const timer = timerOf(view);
  const pieces = timer && timer.pauses.length > 0 ? clustersOf(timer, floorClock.now()).slice(0, -1) : [];
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
      {pieces.length > 0 && <span className="text-xl font-normal">{pieces.join(' + ')}</span>}
    </p>
  );
}

function Stepper({
  name,
  value,
  wide,
  onLess,
  onMore,
}: {
  name: string;
  value: string;
  wide?: boolean;
  onLess: (() => void) | undefined;
  onMore: (() => void) | undefined;
}) {
  return (
    <div role="group" aria-label={name} className="flex min-h-16 items-stretch">
      <button
        type="button"
        className="btn h-auto w-14 px-0"
        aria-label={`Less: ${name}`}
        disabled={!onLess}
        onClick={onLess}
      >
        <Minus aria-hidden />
      </button>
      <output
        className={`flex flex-col items-center justify-center px-2 text-center leading-none font-bold ${wide ? 'max-w-40 min-w-28 text-xl' : 'min-w-18 text-4xl'}`}
      >
        {value}
        {!wide && <span className="quiet text-xl font-normal">{name}</span>}
      </output>
      <button
        type="button"
        className="btn h-auto w-14 px-0"
        aria-label={`More: ${name}`}
        disabled={!onMore}
        onClick={onMore}
      >
        <Plus aria-hidden />
      </button>
    </div>
  );
}

/** How the last set felt, asked until it is answered; then what the next one should be. */
export function RestEffort({ view }: { view: LaneView }) {
  const tap = useTap(view.client.id);
  const asked = unanswered(view);
  const say = (effort: Effort, left?: number) => {
    if (asked)
      tap(
        asked.sets.map((set) =>
          draft(uuidv7(), 'effort-felt', { setId: set.id, effort, ...(left === undefined ? {} : { left }) }),
        ),
      );
  };
  useKeys(['1', '2', '3', '4'], (key) => {
    const effort = EFFORTS[Number(key) - 1];
    if (effort) say(effort);
  });
  return (
    <div className="mt-2 min-h-16">
      {asked ? (
        <div
          role="group"
          aria-label="How did it feel?"
          className="grid grid-cols-4 items-center gap-2 sm:grid-cols-[auto_repeat(4,1fr)_auto]"
        >
          <span className="max-w-40 pr-1 leading-tight max-sm:col-span-4">
            {asked.name ? `${asked.name} felt` : 'Felt'}
          </span>
          {EFFORTS.map((effort) => (
            <button key={effort} type="button" className="btn target px-1" onClick={() => say(effort)}>
              {label(effort)}
            </button>
          ))}
          <RepsLeft onLeft={(left) => say(effortOf(left), left)} />
        </div>
      ) : (
        <Next view={view} />
      )}
    </div>
  );
}

/** Reps left by number, for those who ask that way. */
function RepsLeft({ onLeft }: { onLeft: (left: number) => void }) {
  return (
    <select
      className="select target w-24 max-sm:col-span-4 max-sm:w-full"
      aria-label="Reps left"
      value=""
      onChange={(event) => onLeft(Number(event.target.value))}
    >
      <option value="" disabled>
        Left
      </option>
      {Array.from({ length: 9 }, (_, n) => (
        <option key={n} value={n}>
          {n} left
        </option>
      ))}
    </select>
  );
}

/** The next dose with its reason; one tap takes it. */
function Next({ view }: { view: LaneView }) {
  const tap = useTap(view.client.id);
  const proposal = proposalFor(view);
  const last = view.entry?.sets.findLast((set) => set.effort !== null);
  const take = (one: Proposal) => {
    if (one.to) tap(swapTo(view, one.to.id, one.step.kind === 'rung-up' ? 'ready' : 'too hard', uuidv7));
    else if (one.changes) tap(takeProposal(view, one, uuidv7));
  };
  useKeys(['j'], () => proposal && take(proposal));
  if (!proposal) return last ? <p className="quiet pt-3">Last set felt {last.effort}.</p> : null;
  const words = proposal.to
    ? proposal.to.name.toLowerCase()
    : view.movement && doseWords(proposal.dose, view.movement.dose.mode);
  return (
    <div className="flex items-center gap-3">
      <p className="min-w-0 flex-1 leading-snug">
        <span className="sr-only">Last set felt {last?.effort}. </span>
        {proposal.why}
      </p>
      {(proposal.changes || proposal.to) && (
        <button type="button" className="btn target h-auto shrink-0 py-2" onClick={() => take(proposal)}>
          Take {words}
        </button>
      )}
    </div>
  );
}
