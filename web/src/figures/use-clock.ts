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

export function useClock(startPlaying: boolean): Clock {
  const [time] = useState(() => new Time());
  const [playing, play] = useState(() => startPlaying && !lessMotion());
  const [speed, setSpeed] = useState(1);
  useEffect(
    () => (playing ? onBeat((step) => time.set(time.seconds + step * speed)) : undefined),
    [time, playing, speed],
  );
  const scrub = useCallback(
    (to: number) => {
      play(false);
      time.set(to);
    },
    [time],
  );
  return { time, playing, speed, play, setSpeed, scrub };
}
