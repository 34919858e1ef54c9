/**
 * A time that figures are drawn at, kept outside of React: sixty times a second it moves on, and only what is drawn
 * from it is touched. All times on a page beat together.
 */
import { useSyncExternalStore } from 'react';

export class Time {
  #seconds = 0;
  readonly #listeners = new Set<() => void>();

  get seconds(): number {
    return this.#seconds;
  }

  set(seconds: number): void {
    this.#seconds = seconds;
    for (const tell of this.#listeners) tell();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
}

/** The time as it runs, for the few places that say it in words or numbers. */
export const useSeconds = (time: Time): number => useSyncExternalStore(time.subscribe, () => time.seconds);

type Beat = (step: number) => void;
const beats = new Set<Beat>();
let last: number | null = null;

/** The longest step after a page was hidden: a figure goes on where it was, it does not jump. */
const LONGEST_STEP = 0.1;

function frame(now: number): void {
  const step = last === null ? 0 : Math.min(LONGEST_STEP, (now - last) / 1000);
  last = now;
  for (const beat of beats) beat(step);
  if (beats.size > 0) requestAnimationFrame(frame);
  else last = null;
}

/** Calls with the seconds since the last animation frame, until the returned function ends it. */
export function onBeat(beat: Beat): () => void {
  if (beats.size === 0) requestAnimationFrame(frame);
  beats.add(beat);
  return () => beats.delete(beat);
}
