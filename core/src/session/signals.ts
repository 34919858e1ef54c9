/**
 * What is heard and seen while something is timed: countdowns, begins and ends, the change of side, the beat of a tempo.
 * All of it is laid out ahead, in milliseconds from the start, so that sound can be scheduled and does not hang on the page's own beat.
 */
import { partSeconds } from '../dosage/parts.js';
import { type Begins, inOrder } from '../movement/tempo.js';
import type { Part } from '../schema/part.js';
import { piecesOf, type Timer } from './timer.js';

export const SIGNAL_KINDS = ['count', 'begin', 'end', 'side', 'lower', 'hold', 'rise'] as const;
export type SignalKind = (typeof SIGNAL_KINDS)[number];

export interface Signal {
  /** Milliseconds from the start. */
  at: number;
  kind: SignalKind;
}

/** Seconds counted down before a change. */
const COUNTDOWN = 3;

/** Beeps towards `end`, as far as they are after `from`. */
const countdown = (from: number, end: number): Signal[] =>
  Array.from({ length: COUNTDOWN }, (_, i): Signal => ({ at: end - (COUNTDOWN - i) * 1000, kind: 'count' })).filter(
    ({ at }) => at > from,
  );

/** The signals of a timer. `halves`: each piece of work is for both sides, so its middle says to change. */
export function signalsOf(timer: Pick<Timer, 'work' | 'rest' | 'count' | 'works'>, halves = false): Signal[] {
  const signals: Signal[] = [];
  const rest = timer.rest * 1000;
  for (const [piece, { from, work }] of piecesOf(timer).entries()) {
    const end = from + work;
    signals.push({ at: from, kind: 'begin' });
    if (halves) signals.push({ at: from + work / 2, kind: 'side' });
    signals.push(...countdown(from, end), { at: end, kind: 'end' });
    if (rest > 0 && piece < timer.count - 1) signals.push(...countdown(end, end + rest));
  }
  return signals.sort((a, b) => a.at - b.at);
}

/** The signals of a rest of whole seconds: counted down, and its end. */
export const restSignals = (seconds: number): Signal[] => [
  ...countdown(0, seconds * 1000),
  { at: seconds * 1000, kind: 'begin' },
];

/** The signals of a composed set: each part begins with its own sound; reps go by their beat, pulses by the second, and the end of a hold is counted down. */
export function partsSignals(parts: readonly Part[], tempo: string, begins: Begins): Signal[] {
  const signals: Signal[] = [];
  let from = 0;
  for (const part of parts) {
    const end = from + partSeconds(part, tempo) * 1000;
    signals.push({ at: from, kind: 'begin' });
    if (part.kind === 'hold') signals.push(...countdown(from, end));
    else if (part.kind === 'reps')
      for (const { at, kind } of tempoSignals(part.tempo ?? tempo, part.count, begins))
        if (at > 0 && kind !== 'end') signals.push({ at: from + at, kind });
    if (part.kind === 'pulses')
      for (let second = 1; second < part.count; second += 1) signals.push({ at: from + second * 1000, kind: 'count' });
    if (part.kind === 'half')
      for (let rep = 1; rep < part.count; rep += 1)
        signals.push({ at: Math.round(from + ((end - from) * rep) / part.count), kind: 'lower' });
    from = end;
  }
  return [...signals, { at: from, kind: 'end' }];
}

export type TempoPhase = 'lower' | 'hold' | 'rise';

/** What is beaten, in the order of the rep. */
const BEATS: Readonly<Record<Begins, readonly [TempoPhase, TempoPhase, TempoPhase, TempoPhase]>> = {
  lower: ['lower', 'hold', 'rise', 'hold'],
  rise: ['rise', 'hold', 'lower', 'hold'],
};

export interface TempoState {
  /** Rep in hand, from 1. */
  rep: number;
  phase: TempoPhase;
  /** Second within the phase, from 1, and how many it has. */
  second: number;
  of: number;
}

/** Where a rep stands that begins with one half of its tempo; null for a tempo without any time in it. */
export function tempoAt(tempo: string, elapsedMs: number, begins: Begins): TempoState | null {
  const parts = inOrder(tempo, begins);
  const whole = parts.reduce((sum, seconds) => sum + seconds, 0);
  if (whole === 0) return null;
  const seconds = Math.max(0, elapsedMs) / 1000;
  let within = seconds % whole;
  const rep = Math.floor(seconds / whole) + 1;
  for (const [i, of] of parts.entries()) {
    if (within < of) return { rep, phase: BEATS[begins][i] ?? 'hold', second: Math.floor(within) + 1, of };
    within -= of;
  }
  return null;
}

/** The beats of some reps at a tempo: each phase has its own sound, and each further second of it a count. */
export function tempoSignals(tempo: string, reps: number, begins: Begins): Signal[] {
  const parts = inOrder(tempo, begins);
  const signals: Signal[] = [];
  let at = 0;
  for (let rep = 0; rep < reps; rep += 1)
    for (const [i, seconds] of parts.entries())
      for (let second = 0; second < seconds; second += 1) {
        signals.push({ at, kind: second === 0 ? (BEATS[begins][i] ?? 'count') : 'count' });
        at += 1000;
      }
  return [...signals, { at, kind: 'end' }];
}
