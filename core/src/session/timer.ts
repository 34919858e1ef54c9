/**
 * Timers as functions of time: work and rest in turns, paused and gone on with, always reckoned from when they were started.
 * Nothing is ever added up by ticks, so that a locked screen, a reload or a slow page changes nothing.
 */
import type { SetSide } from './events.js';

export interface Span {
  from: string;
  /** Null while it lasts. */
  to: string | null;
}

export interface Timer {
  id: string;
  /** What is timed; null for the clock of everybody at a block. */
  entryId: string | null;
  blockId: string | null;
  side: SetSide;
  /** Whole seconds. */
  work: number;
  rest: number;
  /** How many pieces of work. */
  count: number;
  /** Seconds of each piece of work where they differ. */
  works?: number[] | undefined;
  startedAt: string;
  pauses: Span[];
  /** It goes on beyond what it was set to. */
  extended: boolean;
  /** Pieces of it may have been paused in between: what was worked adds up. */
  stoppedAt: string | null;
}

export interface TimerState {
  phase: 'work' | 'rest' | 'over';
  /** Piece of work in hand, or the one before the rest, from 0. */
  piece: number;
  /** Milliseconds left of the phase; below 0 by how long it is over. */
  left: number;
  /** Milliseconds since the start, without pauses. */
  elapsed: number;
  running: boolean;
}

const ms = (at: string): number => Date.parse(at);

/** Milliseconds of some spans up to `now`; one that is open lasts until then. Spans of one timer do not overlap. */
export const spanned = (spans: readonly Span[], now: number): number =>
  spans.reduce((sum, { from, to }) => sum + Math.max(0, Math.min(to === null ? now : ms(to), now) - ms(from)), 0);

/** Milliseconds that a timer has run, without its pauses. Never below 0, whatever the clocks say. */
export function elapsedOf({ startedAt, pauses, stoppedAt }: Timer, now: number): number {
  const end = stoppedAt === null ? now : Math.min(now, ms(stoppedAt));
  return Math.max(0, end - ms(startedAt) - spanned(pauses, end));
}

type Pieces = Pick<Timer, 'work' | 'rest' | 'count' | 'works'>;

/** Whole seconds of a piece of work, from 0. */
export const workOf = ({ work, works }: Pick<Timer, 'work' | 'works'>, piece: number): number => works?.[piece] ?? work;

/** The pieces of work of a timer: where each begins, in milliseconds from the start, and how long it is. */
export function piecesOf({ rest, count, ...of }: Pieces): { from: number; work: number }[] {
  let from = 0;
  return Array.from({ length: count }, (_, piece) => {
    const one = { from, work: workOf(of, piece) * 1000 };
    from += one.work + rest * 1000;
    return one;
  });
}

/** Where a timer stands at a time in milliseconds. The last piece has no rest after it. */
export function timerAt(timer: Timer, now: number): TimerState {
  const pieces = piecesOf(timer);
  const elapsed = elapsedOf(timer, now);
  const goes = timer.stoppedAt === null && timer.pauses.at(-1)?.to !== null;
  const last = pieces.at(-1);
  const all = last ? last.from + last.work : 0;
  const running = goes && (timer.extended || elapsed < all);
  if (elapsed >= all)
    return { phase: timer.extended ? 'work' : 'over', piece: timer.count - 1, left: all - elapsed, elapsed, running };
  const piece = pieces.findLastIndex(({ from }) => from <= elapsed);
  const { from, work } = pieces[piece] ?? { from: 0, work: all };
  const within = elapsed - from;
  return within < work
    ? { phase: 'work', piece, left: work - within, elapsed, running }
    : { phase: 'rest', piece, left: work + timer.rest * 1000 - within, elapsed, running };
}

/** Whole seconds worked so far, rests left out; beyond what was asked only where it was gone on with. */
export function workedSeconds(timer: Timer, now: number): number {
  const { phase, piece, left, elapsed } = timerAt(timer, now);
  if (timer.count === 1) return Math.min(Math.floor(elapsed / 1000), timer.extended ? Infinity : workOf(timer, 0));
  return piecesOf(timer)
    .slice(0, piece + 1)
    .reduce((sum, { work }, i) => sum + Math.floor((phase === 'work' && i === piece ? work - left : work) / 1000), 0);
}

/** Pieces that add up to less, because the last one broke before somebody pressed; null where that cannot be. */
export function cutTo(pieces: readonly number[], total: number): number[] | null {
  const before = pieces.slice(0, -1);
  const last = total - before.reduce((sum, one) => sum + one, 0);
  return last >= 1 && last <= (pieces.at(-1) ?? 0) ? [...before, last] : null;
}

/** The pieces that a hold was broken into, in whole seconds: paused and gone on with. */
export function clustersOf({ startedAt, pauses, stoppedAt, work, extended }: Timer, now: number): number[] {
  const stop = stoppedAt === null ? now : ms(stoppedAt);
  // It ends at its length, unless it was gone on with.
  const end = extended ? stop : Math.min(stop, ms(startedAt) + spanned(pauses, stop) + work * 1000);
  const starts = [ms(startedAt), ...pauses.flatMap(({ to }) => (to === null ? [] : [ms(to)]))];
  return starts.map((from, i) => {
    const pause = pauses[i];
    return Math.floor(Math.max(0, (pause ? ms(pause.from) : end) - from) / 1000);
  });
}
