/** What a lane's clock says at a moment: work, a pause in it, rest, or ready to go on. */
import type { Test } from '../client/tests.js';
import { type PartAt, partAt, partSeconds, partsSeconds } from '../dosage/parts.js';
import { setSeconds } from '../dosage/tempo.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import { type Begins, beginsWith, parseTempo } from '../movement/tempo.js';
import type { Part } from '../schema/part.js';
import { partsSignals, restSignals, type Signal, signalsOf, tempoAt, tempoSignals } from '../session/signals.js';
import { elapsedOf, type Timer, timerAt, type TimerState } from '../session/timer.js';
import { type LaneView, movementOf } from './lane-view.js';
import { doseNow } from './next.js';

export type LanePhase = 'work' | 'paused' | 'over' | 'rest' | 'ready' | 'idle';

export interface LaneTime {
  phase: LanePhase;
  /** The large words of the clock. */
  words: string;
  /** Seconds left of work or rest, at least 0. */
  left: number;
  /** What a rep is at, where a tempo is beaten. */
  beat: string | null;
}

/** The timer of the movement in hand that has not ended; one of a movement that was left is over. */
export const timerOf = ({ lane, entry }: LaneView): Timer | undefined => {
  const timer = lane.timers.at(-1);
  return timer?.stoppedAt === null && timer.entryId === entry?.id ? timer : undefined;
};

/** With which half the reps in hand begin. */
const beginsIn = ({ movement }: LaneView): Begins => beginsWith(movement?.phases ?? []);

export function laneTime(view: LaneView, now: number): LaneTime {
  if (view.clock) return clockTime(view.clock, view.waits, now);
  const timer = timerOf(view);
  if (timer) {
    const { left, running, elapsed, phase } = timerAt(timer, now);
    const { parts, tempo, test } = doseNow(view) ?? {};
    if (test) return testTime(test, timerAt(timer, now));
    if (parts && tempo !== undefined) return composedTime(parts, tempo, beginsIn(view), elapsed, running);
    const other = otherOf(view);
    if (other && tempo !== undefined && left > 0) return combinedTime(view, tempo, other, elapsed, running, left);
    const dose = view.movement?.dose.mode === 'reps' ? doseNow(view) : undefined;
    if (dose && left <= 0) return { phase: 'work', words: `${dose.amount} reps`, left: 0, beat: null };
    const at = dose && tempoAt(dose.tempo, elapsed, beginsIn(view));
    if (phase === 'over') return { phase, words: clockWords(0), left: 0, beat: null };
    return {
      phase: running ? 'work' : 'paused',
      words: at ? `Rep ${at.rep}` : clockWords(left),
      left: Math.max(0, Math.ceil(left / 1000)),
      beat: at ? `${at.phase} ${at.second}` : null,
    };
  }
  const { rest } = view;
  if (!rest) return { phase: 'idle', words: '', left: 0, beat: null };
  const left = rest.seconds * 1000 - (now - Date.parse(rest.from));
  // Long after a rest its length tells nothing any more.
  if (left < -LONG_MS) return { phase: 'idle', words: '', left: 0, beat: null };
  return {
    phase: left > 0 ? 'rest' : 'ready',
    words: clockWords(left),
    left: Math.max(0, Math.ceil(left / 1000)),
    beat: null,
  };
}

/** The second movement of the rep in hand, where both are counted in reps; undefined for a movement alone. */
function otherOf(view: LaneView): MovementSummary | undefined {
  const withId = doseNow(view)?.withId ?? null;
  const other = withId === null ? undefined : movementOf(view, withId);
  return view.movement?.dose.mode === 'reps' && other?.dose.mode === 'reps' ? other : undefined;
}

const secondsOf = (tempo: string): number => parseTempo(tempo).reduce((sum, seconds) => sum + seconds, 0);

/** One rep of a combination is one of each, the one after the other. */
function combinedTime(
  { movement }: LaneView,
  tempo: string,
  other: MovementSummary,
  elapsed: number,
  running: boolean,
  left: number,
): LaneTime {
  const [own, second] = [secondsOf(tempo), secondsOf(other.dose.tempo)];
  const rep = Math.max(1, own + second) * 1000;
  const within = elapsed % rep;
  const first = within < own * 1000;
  return {
    phase: running ? 'work' : 'paused',
    words: `Rep ${Math.floor(elapsed / rep) + 1}`,
    left: Math.max(0, Math.ceil(left / 1000)),
    beat: (first ? movement?.name : other.name)?.toLowerCase() ?? null,
  };
}

/** A test that ends at a time counts down to it; another one counts up. */
function testTime({ seconds }: Test, { left, elapsed, running, phase }: TimerState): LaneTime {
  if (seconds !== null && phase === 'over') return { phase, words: clockWords(0), left: 0, beat: null };
  const shown = seconds === null ? Math.floor(elapsed / 1000) * 1000 : left;
  return {
    phase: running ? 'work' : 'paused',
    words: clockWords(shown),
    // Only what ends by itself is counted down.
    left: seconds === null ? LONGEST_TEST : Math.max(0, Math.ceil(left / 1000)),
    beat: null,
  };
}

/** Seconds after which a test that nobody ended is over. */
const LONGEST_TEST = 1800;

/** The time of a composed set: reps and pulses are counted within their part, a hold counts down. */
function composedTime(
  parts: readonly Part[],
  tempo: string,
  begins: Begins,
  elapsed: number,
  running: boolean,
): LaneTime {
  const at = partAt(parts, tempo, elapsed);
  const phase = running ? 'work' : 'paused';
  if (!at) return { phase: 'over', words: clockWords(0), left: 0, beat: null };
  const { part, within, left } = at;
  const seconds = Math.max(0, Math.ceil(left / 1000));
  if (part.kind === 'hold') return { phase, words: clockWords(left), left: seconds, beat: null };
  const length = partSeconds(part, tempo) * 1000;
  const n = Math.min(part.count, Math.floor((within / length) * part.count) + 1);
  const beat = part.kind === 'reps' ? tempoAt(part.tempo ?? tempo, within, begins) : null;
  return {
    phase,
    words: `${n} of ${part.count}`,
    left: seconds,
    beat: beat ? `${beat.phase} ${beat.second}` : null,
  };
}

/** Which part of a composed set the lane is in now; null where none runs. */
export function partNow(view: LaneView, now: number): PartAt | null {
  const timer = timerOf(view);
  const dose = doseNow(view);
  return timer && dose?.parts ? partAt(dose.parts, dose.tempo, timerAt(timer, now).elapsed) : null;
}

/** While everybody goes by a clock, no lane has a time of its own. */
function clockTime(clock: Timer, waits: boolean, now: number): LaneTime {
  const { phase, left, running } = timerAt(clock, now);
  if (phase === 'over') return { phase, words: '', left: 0, beat: null };
  const seconds = Math.max(0, Math.ceil(left / 1000));
  const own = phase === 'work' && !waits ? 'work' : 'rest';
  return { phase: running ? own : 'paused', words: clockWords(left), left: seconds, beat: null };
}

const LONG_MS = 10 * 60_000;

/** `1:05`, `-0:07` for what is over. Time left is counted so that a whole second shows until it is gone. */
export function clockWords(milliseconds: number): string {
  const seconds = Math.ceil(milliseconds / 1000);
  const whole = Math.abs(seconds);
  return `${seconds < 0 ? '-' : ''}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

export interface Sounds {
  signals: Signal[];
  /** Milliseconds of the floor's clock from which they are reckoned. */
  start: number;
}

/** What a lane has to sound from now on; null where nothing runs. */
export function soundsOf(view: LaneView, now: number): Sounds | null {
  // The clock of everybody sounds for all.
  if (view.clock) return null;
  const timer = timerOf(view);
  if (timer) {
    if (!timerAt(timer, now).running) return null;
    const dose = doseNow(view);
    const byBeat = view.movement?.dose.mode === 'reps';
    const other = otherOf(view);
    // A combination is counted by its whole reps.
    if (dose && other && !dose.parts && !dose.test) {
      const rep = secondsOf(dose.tempo) + secondsOf(other.dose.tempo);
      return {
        signals: tempoSignals(`${Math.min(99, rep)}-0-0-0`, dose.amount, 'lower'),
        start: now - elapsedOf(timer, now),
      };
    }
    const signals = dose?.test
      ? signalsOf(timer)
      : dose?.parts
        ? partsSignals(dose.parts, dose.tempo, beginsIn(view))
        : dose && byBeat
          ? tempoSignals(dose.tempo, dose.amount, beginsIn(view))
          : signalsOf(timer);
    return { signals, start: now - elapsedOf(timer, now) };
  }
  const { rest } = view;
  return rest && { signals: restSignals(rest.seconds), start: Date.parse(rest.from) };
}

/** Whole seconds that a timer for the set in hand is set to: the hold itself, or the reps at their tempo on one side. */
export function timerSeconds(view: LaneView): number {
  const dose = doseNow(view);
  const { movement } = view;
  if (!dose || !movement) return 1;
  if (dose.test) return dose.test.seconds ?? LONGEST_TEST;
  if (dose.parts) return Math.max(1, partsSeconds(dose.parts, dose.tempo, 'both'));
  const other = otherOf(view);
  const second = other ? setSeconds(other.dose, 'both', dose.amount) : 0;
  return Math.max(1, setSeconds({ mode: movement.dose.mode, tempo: dose.tempo }, 'both', dose.amount) + second);
}
