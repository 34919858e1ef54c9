/** The rep with the most to mend beside the clean one at the same moment, and beside the best of the clip. */
import type { Movement } from '@waxwing/core/movement';
import type { Reading, Series } from '@waxwing/core/sight';
import { useEffect, useRef, useState } from 'react';

import { FigureDrawing } from '../figures/figure';
import { useMotion } from '../figures/use-motion';
import { say } from '../words/say';
import { type Clip, seek } from './clip';
import { drawBody, nearest } from './overlay';
import { rankedReps } from './ranked';
import { sameMoment } from './same-moment';

interface Props {
  reading: Reading;
  movement: Movement;
  clip: Clip;
  series: Series;
}

export function RepPair({ reading, movement, clip, series }: Props) {
  const motion = useMotion(movement);
  const ranked = rankedReps(reading);
  const [worst, best] = [ranked[0], ranked.at(-1)];
  if (!worst || !best || !motion) return null;
  const word = reading.holds ? say.sight.piece : say.sight.rep;
  const clean = reading.clean.rep;
  const at = clean ? sameMoment(worst.rep, worst.rep.turns, clean) : 0;
  const turn = reading.quarters;
  return (
    <section aria-label={say.sight.sideBySide} className="min-w-0">
      <div className="grid grid-cols-3 gap-3">
        <Moment clip={clip} series={series} at={worst.rep.turns} turn={turn}>
          {say.sight.mostToMend(word, worst.i + 1, worst.off)}
        </Moment>
        <figure className="min-w-0">
          <FigureDrawing
            motion={motion}
            at={at}
            view={reading.stand.view}
            reflect={reading.stand.view === 'side' && reading.stand.faces === -1}
            title={say.sight.cleanAtTheSameMoment(movement.name)}
            className="h-56 w-full"
          />
          <figcaption className="mt-1 text-center">{say.sight.cleanSameMoment}</figcaption>
        </figure>
        {best.i !== worst.i && (
          <Moment clip={clip} series={series} at={best.rep.turns} turn={turn}>
            {say.sight.theBest(word, best.i + 1)}
          </Moment>
        )}
      </div>
    </section>
  );
}

/** One moment of the clip as a still. It has a player of its own, so that the clip above stays where it is. */
function Moment({
  clip: { video: source, width, height },
  series,
  at,
  turn,
  children,
}: {
  clip: Clip;
  series: Series;
  at: number;
  turn: number;
  children: React.ReactNode;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    const video = document.createElement('video');
    video.muted = true;
    video.preload = 'auto';
    video.src = source.src;
    let gone = false;
    const show = async (): Promise<void> => {
      await seek(video, at);
      const pen = canvas.current?.getContext('2d');
      if (gone || !pen) return;
      pen.drawImage(video, 0, 0, width, height);
      drawBody(pen, series, nearest(series.times, at), height);
    };
    show().catch(() => setFailed(true));
    return () => {
      gone = true;
      video.removeAttribute('src');
      video.load();
    };
  }, [source, series, at, width, height]);
  return (
    <figure className="min-w-0">
      {failed ? (
        <p className="quiet h-56">{say.sight.thisMomentCouldNotBe}</p>
      ) : (
        <canvas
          ref={canvas}
          width={width}
          height={height}
          className="h-56 w-full object-contain"
          style={{ transform: turn > 0 ? `rotate(${turn * 90}deg)` : undefined }}
        />
      )}
      <figcaption className="mt-1 text-center">{children}</figcaption>
    </figure>
  );
}
