/** Seconds that run on while something plays: one animation frame after the other, so that hidden pages cost nothing. */
import { useEffect, useRef, useState } from 'react';

export interface Clock {
  seconds: number;
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

/** The longest step after a page was hidden: a figure goes on where it was, it does not jump. */
const LONGEST_STEP = 0.1;

export function useClock(startPlaying: boolean): Clock {
  const [seconds, setSeconds] = useState(0);
  const [playing, play] = useState(startPlaying && !lessMotion());
  const [speed, setSpeed] = useState(1);
  const last = useRef<number | null>(null);
  useEffect(() => {
    if (!playing) return;
    let handle = requestAnimationFrame(function tick(now) {
      const step = last.current === null ? 0 : Math.min(LONGEST_STEP, (now - last.current) / 1000);
      last.current = now;
      setSeconds((before) => before + step * speed);
      handle = requestAnimationFrame(tick);
    });
    return () => {
      cancelAnimationFrame(handle);
      last.current = null;
    };
  }, [playing, speed]);
  return {
    seconds,
    playing,
    speed,
    play,
    setSpeed,
    scrub: (to) => {
      play(false);
      setSeconds(to);
    },
  };
}
