/** Schedules what the lanes and the clock of a block have to sound, and takes it back when they stop. */
import { type LaneView, soundsOf, timerOf } from '@waxwing/core/floor';
import { elapsedOf, signalsOf, type Timer, timerAt } from '@waxwing/core/session';
import { useEffect } from 'react';

import { floorClock } from './clock';
import { schedule, useSound } from './sound';

/** Lanes sound a tone apart. */
const PITCHES = [1, 1.122, 1.26, 1.414];

/** For one lane: what was scheduled is laid out anew whenever its timer or its rest is another. */
export function useLaneSounds(view: LaneView, index: number): void {
  const { muted, volume } = useSound();
  const timer = timerOf(view);
  const rest = timer ? null : view.lane.entries.flatMap(({ sets }) => sets).at(-1)?.id;
  const state = `${timer?.id ?? ''} ${timer?.pauses.length ?? 0} ${timer?.pauses.at(-1)?.to ?? ''} ${rest ?? ''}`;
  useEffect(() => {
    const sounds = muted ? null : soundsOf(view, floorClock.now());
    return sounds ? schedule(sounds.signals, sounds.start, PITCHES[index] ?? 1, volume) : undefined;
    // The rest of the view changes with every tap, and what sounds must not begin anew with it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [state, index, muted, volume]);
}

/** For the clock of a block. `halves`: somebody works one side, then the other. */
export function useClockSounds(clock: Timer | undefined, halves: boolean): void {
  const { muted, volume } = useSound();
  useEffect(() => {
    if (!clock || muted) return undefined;
    const now = floorClock.now();
    if (clock.stoppedAt !== null || !timerAt(clock, now).running) return undefined;
    return schedule(signalsOf(clock, halves), now - elapsedOf(clock, now), 1, volume);
  }, [clock, halves, muted, volume]);
}
