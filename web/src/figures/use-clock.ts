/** A time that runs while something plays, at its tempo or slower, and can be put to any moment. */
import { useCallback, useEffect, useState } from 'react';

import { onBeat, Time } from './time';

export interface Clock {
  time: Time;
  playing: boolean;
  /** 1 for the prescribed tempo. */
  speed: number;
  play: (on: boolean) => void;
  setSpeed: (speed: number) => void;
  /** Jumps to a time and stays there. */
  scrub: (seconds: number) => void;
}

/** True where motion is unwanted. */
export const lessMotion = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

/** @param perSecond how often it moves on; as often as the screen is drawn without a number */
export function useClock(startPlaying: boolean, perSecond?: number): Clock {
  const [time] = useState(() => new Time());
  const [playing, play] = useState(() => startPlaying && !lessMotion());
  const [speed, setSpeed] = useState(1);
  useEffect(() => {
    if (!playing) return undefined;
    const least = perSecond === undefined ? 0 : 1 / perSecond;
    let waited = 0;
    return onBeat((step) => {
      waited += step;
      if (waited < least) return;
      time.set(time.seconds + waited * speed);
      waited = 0;
    });
  }, [time, playing, speed, perSecond]);
  const scrub = useCallback(
    (to: number) => {
      play(false);
      time.set(to);
    },
    [time],
  );
  return { time, playing, speed, play, setSpeed, scrub };
}
