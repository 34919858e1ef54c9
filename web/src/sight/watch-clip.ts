/** A clip looked at from its beginning to its end: played, and every picture that comes in time given to the eye. */
import { type Body, type Sighting } from '@waxwing/core/sight';
import { type Remote, transfer } from 'comlink';

import { say } from '../words/say';
import { type Clip, NoClip, pictureOf, seek } from './clip';
import type { Eye } from './eye.worker';

/** Pictures a second that are wanted. */
export const RATE = 15;
/** How much faster or slower than in life a clip is played, so that the eye keeps up. */
const [SLOWEST, FASTEST] = [0.3, 4];
/** Shares of the clip at which somebody is looked for. */
const LOOKS = [0.02, 0.15, 0.35, 0.6];
/** A player that shows nothing new for so long has come to its end. */
const STALLED_MS = 4000;

export interface People {
  bodies: Body[];
  /** The picture on which they were seen, for choosing by tapping. */
  at: number;
}

/** Who is to be seen, on the first picture with anybody. @throws NoClip where nobody is */
export async function peopleIn({ video, seconds }: Clip, eye: Remote<Eye>): Promise<People> {
  for (const share of LOOKS) {
    const at = seconds * share;
    await seek(video, at);
    const picture = await pictureOf(video);
    const bodies = await eye.everybody(transfer(picture, [picture]));
    if (bodies.length > 0) return { bodies, at };
  }
  throw new NoClip(say.sight.nobodySeen);
}

export interface Progress {
  /** 0–1 of the clip. */
  share: number;
  /** Seconds that it still takes. */
  left: number;
}

/**
 * @param chosen one of several people; null for whoever there is
 * @throws DOMException with the name AbortError when it was cancelled
 */
export async function watchClip(
  { video, seconds, width, height }: Clip,
  eye: Remote<Eye>,
  chosen: Body | null,
  { signal, progress }: { signal: AbortSignal; progress: (now: Progress) => void },
): Promise<Sighting[]> {
  await seek(video, 0);
  const first = await pictureOf(video);
  await eye.choose(chosen, { width: first.width || width, height: first.height || height });
  first.close();
  const sightings: Sighting[] = [];
  const began = performance.now();
  let [busy, last, pace] = [false, -1, 1000 / RATE];
  let looking: Promise<void> = Promise.resolve();

  const look = async (at: number): Promise<void> => {
    const start = performance.now();
    const picture = await pictureOf(video);
    sightings.push({ at, body: await eye.follow(transfer(picture, [picture]), at) });
    pace += 0.1 * (performance.now() - start - pace);
    // As fast as the eye can follow, and no faster.
    video.playbackRate = Math.min(FASTEST, Math.max(SLOWEST, (0.85 * 1000) / RATE / pace));
    const share = Math.min(1, at / seconds);
    progress({ share, left: share > 0 ? ((performance.now() - began) / 1000) * (1 / share - 1) : seconds });
  };

  try {
    await new Promise<void>((resolve, reject) => {
      const ended = (): void => {
        // Nothing is played in a page that nobody sees; it goes on when it is looked at again.
        if (document.hidden) stalled = setTimeout(ended, STALLED_MS);
        else resolve();
      };
      let stalled = setTimeout(ended, STALLED_MS);
      signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true });
      video.addEventListener('ended', () => resolve(), { once: true, signal });
      const next = (_: number, { mediaTime }: VideoFrameCallbackMetadata): void => {
        clearTimeout(stalled);
        if (signal.aborted) return;
        if (mediaTime >= seconds) return resolve();
        stalled = setTimeout(ended, STALLED_MS);
        video.requestVideoFrameCallback(next);
        if (busy || mediaTime - last < 0.9 / RATE) return;
        busy = true;
        last = mediaTime;
        looking = look(mediaTime).then(
          () => void (busy = false),
          (error: unknown) => reject(error as Error),
        );
      };
      video.requestVideoFrameCallback(next);
      video.playbackRate = 1;
      video.play().catch(reject);
    });
    await looking;
  } finally {
    video.pause();
  }
  return sightings;
}
