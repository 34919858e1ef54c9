/** The clip with the body drawn over it, its reps as bands on a line, and the way to any moment. */
import type { Reading, Series } from '@waxwing/core/sight';
import { Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';

import { say } from '../words/say';
import { type Clip, goTo, layInto, playAt } from './clip';
import { drawBody, nearest } from './overlay';

interface Props {
  clip: Clip;
  series: Series;
  reading: Reading | null;
  /** Reps with something seen in them. */
  marked: ReadonlySet<number>;
  onMoment: (seconds: number) => void;
  /** The moment that is shown first. */
  first: number;
}

const SPEEDS = [1, 0.5, 0.25];

export function ClipView({ clip: { video, seconds, width, height }, series, reading, marked, onMoment, first }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [at, setAt] = useState(video.currentTime);
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState(1);

  useEffect(() => {
    layInto(holder.current, video, 'block h-full w-full object-contain');
    const stop = new AbortController();
    const draw = (): void => {
      const onto = canvas.current;
      const pen = onto?.getContext('2d');
      if (!onto || !pen) return;
      pen.clearRect(0, 0, onto.width, onto.height);
      drawBody(pen, series, nearest(series.times, video.currentTime), onto.height);
      setAt(video.currentTime);
      onMoment(video.currentTime);
    };
    for (const event of ['seeked', 'timeupdate'] as const) video.addEventListener(event, draw, { signal: stop.signal });
    video.addEventListener('play', () => setPlaying(true), { signal: stop.signal });
    video.addEventListener('pause', () => setPlaying(false), { signal: stop.signal });
    const follow = (): void => {
      if (stop.signal.aborted) return;
      draw();
      video.requestVideoFrameCallback(follow);
    };
    video.requestVideoFrameCallback(follow);
    draw();
    return () => {
      stop.abort();
      video.pause();
      video.remove();
    };
  }, [video, series, onMoment]);

  useEffect(() => goTo(video, first), [video, first]);

  const share = (time: number): string => `${Math.max(0, Math.min(100, (100 * time) / seconds))}%`;
  const turn = reading && reading.quarters > 0 ? `rotate(${reading.quarters * 90}deg)` : undefined;
  return (
    <section aria-label={say.sight.clip} className="min-w-0">
      <div className="bg-neutral relative mx-auto max-h-[52vh]" style={{ aspectRatio: `${width} / ${height}` }}>
        <div ref={holder} className="absolute inset-0" style={{ transform: turn }}>
          <canvas
            ref={canvas}
            width={width}
            height={height}
            className="absolute inset-0 h-full w-full object-contain"
          />
        </div>
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="btn target"
          aria-label={playing ? say.common.pause : say.common.play}
          onClick={() => {
            playAt(video, speed);
            if (playing) video.pause();
            else void video.play();
          }}
        >
          {playing ? <Pause aria-hidden size={20} /> : <Play aria-hidden size={20} />}
        </button>
        <button
          type="button"
          className="btn target"
          onClick={() => {
            const next = SPEEDS[(SPEEDS.indexOf(speed) + 1) % SPEEDS.length] ?? 1;
            setSpeed(next);
            playAt(video, next);
          }}
        >
          {say.sight.speed(speed)}
        </button>
        <span className="tabular-nums">{say.sight.clipAt(at.toFixed(1), seconds.toFixed(1))}</span>
      </div>
      <input
        type="range"
        className="range range-sm mt-2 w-full"
        aria-label={say.sight.momentOfTheClip}
        min={0}
        max={seconds}
        step={0.05}
        value={Math.min(at, seconds)}
        aria-valuetext={`${at.toFixed(1)} seconds`}
        onChange={(event) => goTo(video, Number(event.target.value))}
      />
      {reading && reading.reps.length > 0 && (
        <div
          className="relative mt-1 h-11"
          role="group"
          aria-label={reading.holds ? say.sight.pieces : say.common.reps}
        >
          {reading.reps.map(({ starts, turns, ends }, i) => (
            <button
              key={i}
              type="button"
              title={`${reading.holds ? say.sight.piece : say.sight.rep} ${i + 1}`}
              aria-label={`${reading.holds ? say.sight.piece : say.sight.rep} ${i + 1}${marked.has(i) ? say.sight.somethingWasSeen : ''}`}
              className={`absolute inset-y-0 cursor-pointer border-2 text-sm font-bold ${
                marked.has(i) ? 'border-error text-error' : 'border-base-content/50'
              }`}
              style={{ left: share(starts), width: `calc(${share(ends - starts)} - 2px)` }}
              onClick={() => goTo(video, turns)}
            >
              {i + 1}
            </button>
          ))}
        </div>
      )}
    </section>
  );
}
