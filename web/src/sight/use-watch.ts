/** From a chosen clip to the series that was read from it, step by step, as the page shows it. */
import { type Body, type Series, seriesFrom } from '@waxwing/core/sight';
import { useEffect, useRef, useState } from 'react';

import { say } from '../words/say';
import { type Clip, NoClip, openClip, openFile } from './clip';
import { inTurn, NoEye, openEye } from './eye';
import { peopleIn, type Progress, watchClip } from './watch-clip';

export type Step =
  | { at: 'start'; trouble?: string }
  | { at: 'opening'; share: number }
  | { at: 'choosing'; clip: Clip; bodies: Body[]; shownAt: number }
  | { at: 'watching'; clip: Clip; progress: Progress }
  | { at: 'read'; clip: Clip; series: Series };

export interface Watch {
  step: Step;
  /** A file of this device, or the address of a clip that ships. */
  open: (source: File | string) => void;
  choose: (body: Body | null) => void;
  /** Leaves what is going on, or what was read. */
  close: () => void;
}

const troubleOf = (error: unknown): string =>
  error instanceof NoClip || error instanceof NoEye ? error.message : say.sight.thisClipCouldNotBe;

export function useWatch(): Watch {
  const [step, setStep] = useState<Step>({ at: 'start' });
  const running = useRef<AbortController | null>(null);
  const clips = useRef<Clip | null>(null);

  const letGo = (): void => {
    const source = clips.current?.video.src;
    if (source?.startsWith('blob:')) URL.revokeObjectURL(source);
    clips.current = null;
  };
  useEffect(
    () => () => {
      running.current?.abort();
      letGo();
    },
    [],
  );

  /** Does a part of the way; what goes wrong is said at the start again. */
  const go = (part: (signal: AbortSignal) => Promise<void>): void => {
    running.current?.abort();
    const control = new AbortController();
    running.current = control;
    part(control.signal).catch((error: unknown) => {
      if (control.signal.aborted) return;
      // What still comes in for it is not heard any more.
      control.abort();
      letGo();
      setStep({ at: 'start', trouble: troubleOf(error) });
    });
  };

  const watch = async (clip: Clip, chosen: Body | null, signal: AbortSignal): Promise<void> => {
    const progress = (now: Progress): void => setStep({ at: 'watching', clip, progress: now });
    progress({ share: 0, left: clip.seconds });
    const eye = await openEye();
    const sightings = await inTurn(async () => {
      signal.throwIfAborted();
      return watchClip(clip, eye, chosen, { signal, progress });
    });
    if (!signal.aborted) setStep({ at: 'read', clip, series: seriesFrom(sightings) });
  };

  return {
    step,
    open: (source) =>
      go(async (signal) => {
        letGo();
        setStep({ at: 'opening', share: 0 });
        const share = (now: number): void => {
          if (!signal.aborted) setStep({ at: 'opening', share: now });
        };
        const [clip, eye] = await Promise.all([
          typeof source === 'string' ? openClip(source) : openFile(source),
          openEye(share),
        ]);
        if (signal.aborted) return;
        clips.current = clip;
        const { bodies, at } = await inTurn(() => peopleIn(clip, eye));
        if (signal.aborted) return;
        if (bodies.length > 1) setStep({ at: 'choosing', clip, bodies, shownAt: at });
        else await watch(clip, null, signal);
      }),
    choose: (body) => {
      const clip = clips.current;
      if (clip) go((signal) => watch(clip, body, signal));
    },
    close: () => {
      running.current?.abort();
      letGo();
      setStep({ at: 'start' });
    },
  };
}
