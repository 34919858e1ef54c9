/** One clip from its choice to what was read from it. */
import type { ClientOnDay } from '@waxwing/core/client';
import type { Movement } from '@waxwing/core/movement';
import type { Body } from '@waxwing/core/sight';
import { useEffect, useEffectEvent, useRef, useState } from 'react';

import { bytesWords } from '../words/dates';
import { say } from '../words/say';
import { CameraTake } from './camera-take';
import { type Clip, layInto, MOST_PIXELS, seek } from './clip';
import { EYE_BYTES } from './eye';
import { ReadingView } from './reading-view';
import { useWatch } from './use-watch';
import { WhereToStand } from './where-to-stand';

interface Props {
  movement: Movement;
  client?: ClientOnDay;
  /** A clip that ships; without one there is a choice. */
  source?: string;
  /** One of two beside one another. */
  narrow?: boolean;
  onClose?: () => void;
}

export function Watcher({ movement, client, source, narrow = false, onClose }: Props) {
  const watch = useWatch();
  const [filming, setFilming] = useState(false);
  const { step } = watch;
  const begin = useEffectEvent(() => source && watch.open(source));
  useEffect(() => void begin(), []);
  const close = (): void => {
    watch.close();
    onClose?.();
  };
  switch (step.at) {
    case 'start':
      return (
        <div>
          {step.trouble && !filming && (
            <p role="alert" className="alarm mb-4 max-w-2xl p-3 text-lg">
              {step.trouble}
            </p>
          )}
          {source ? (
            step.trouble && (
              <button type="button" className="btn" onClick={close}>
                {say.common.back}
              </button>
            )
          ) : filming ? (
            <CameraTake
              onTaken={(file) => {
                setFilming(false);
                watch.open(file);
              }}
              onClose={() => setFilming(false)}
            />
          ) : (
            <>
              <WhereToStand movement={movement} />
              <div className="mt-4 flex flex-wrap gap-3">
                <ChooseFile onFile={watch.open} />
                <button type="button" className="btn target" onClick={() => setFilming(true)}>
                  {say.sight.useTheCamera}
                </button>
              </div>
            </>
          )}
        </div>
      );
    case 'opening':
      return (
        <Going title={say.sight.gettingReady} onCancel={close}>
          <progress className="progress w-full" value={step.share} max={1} />
          <p className="quiet">{say.sight.whatItNeedsToSee(bytesWords(EYE_BYTES))}</p>
        </Going>
      );
    case 'choosing':
      return (
        <Choose clip={step.clip} bodies={step.bodies} at={step.shownAt} onChoose={watch.choose} onCancel={close} />
      );
    case 'watching':
      return (
        <Going title={say.common.watching} onCancel={close}>
          <progress className="progress w-full" value={step.progress.share} max={1} />
          <p className="quiet tabular-nums">
            {say.sight.aboutSLeft(Math.round(step.progress.share * 100), Math.max(1, Math.round(step.progress.left)))}
          </p>
          <Shown clip={step.clip} />
        </Going>
      );
    case 'read':
      return (
        <ReadingView
          clip={step.clip}
          series={step.series}
          movement={movement}
          {...(client ? { client } : {})}
          narrow={narrow}
          onClose={close}
        />
      );
  }
}

function ChooseFile({ onFile }: { onFile: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="btn btn-primary target" onClick={() => input.current?.click()}>
        {say.sight.chooseAClip}
      </button>
      <input
        ref={input}
        type="file"
        accept="video/*"
        aria-label={say.sight.clip}
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}

function Going({ title, onCancel, children }: { title: string; onCancel: () => void; children: React.ReactNode }) {
  return (
    <section role="status" className="max-w-xl space-y-3">
      <h2>{title} …</h2>
      {children}
      <button type="button" className="btn" onClick={onCancel}>
        {say.common.cancel}
      </button>
    </section>
  );
}

/** The clip as it is played while it is looked at. */
function Shown({ clip: { video } }: { clip: Clip }) {
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    layInto(holder.current, video, 'max-h-[46vh] max-w-full');
    return () => video.remove();
  }, [video]);
  return <div ref={holder} aria-hidden />;
}

function Choose({
  clip: { video },
  bodies,
  at,
  onChoose,
  onCancel,
}: {
  clip: Clip;
  bodies: readonly Body[];
  at: number;
  onChoose: (body: Body) => void;
  onCancel: () => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const by = Math.min(1, MOST_PIXELS / Math.max(video.videoWidth, video.videoHeight));
  const [width, height] = [video.videoWidth * by, video.videoHeight * by];
  useEffect(() => {
    void seek(video, at).then(() => canvas.current?.getContext('2d')?.drawImage(video, 0, 0, width, height));
  }, [video, at, width, height]);
  return (
    <section>
      <h2 className="mb-2">{say.sight.severalPeopleTapWhoIs}</h2>
      <div className="relative inline-block max-w-full">
        <canvas ref={canvas} width={width} height={height} className="block max-h-[60vh] max-w-full" />
        {bodies.map((body, i) => {
          const { left, top, right, bottom } = body.box;
          const aspect = width / height;
          return (
            <button
              key={i}
              type="button"
              className="absolute cursor-pointer border-4 border-[#ffd84d] bg-black/20 text-4xl font-bold text-white"
              aria-label={say.sight.personFromTheLeft(i + 1)}
              style={{
                left: `${(100 * left) / aspect}%`,
                top: `${100 * top}%`,
                width: `${(100 * (right - left)) / aspect}%`,
                height: `${100 * (bottom - top)}%`,
              }}
              onClick={() => onChoose(body)}
            >
              {i + 1}
            </button>
          );
        })}
      </div>
      <p className="mt-3">
        <button type="button" className="btn" onClick={onCancel}>
          {say.common.cancel}
        </button>
      </p>
    </section>
  );
}
