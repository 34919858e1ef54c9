/** A clip that the browser plays: opened, or refused in words. It stays where the trainer has it; nothing of it is kept or sent. */

import { say } from '../words/say';
export class NoClip extends Error {}

export interface Clip {
  video: HTMLVideoElement;
  /** Seconds that are read. */
  seconds: number;
  width: number;
  height: number;
  /** What is left out or made less of, in words; empty where nothing is. */
  notes: string[];
}

/** Longer clips are read to here, in seconds. */
export const MOST_SECONDS = 300;
/** Pictures are made smaller to this before they are looked at. */
export const MOST_PIXELS = 640;
const OPENING_MS = 15_000;
const FAR_AHEAD = 1e7;

const once = (video: HTMLVideoElement, event: string): Promise<void> =>
  new Promise((resolve, reject) => {
    const stop = new AbortController();
    const timer = setTimeout(() => {
      stop.abort();
      reject(new NoClip(say.sight.clipDoesNotStart));
    }, OPENING_MS);
    const done = (end: () => void) => () => {
      clearTimeout(timer);
      stop.abort();
      end();
    };
    video.addEventListener(event, done(resolve), { signal: stop.signal });
    video.addEventListener(
      'error',
      done(() => reject(new NoClip(say.sight.cannotBePlayed))),
      { signal: stop.signal },
    );
  });

export async function seek(video: HTMLVideoElement, to: number): Promise<void> {
  const arrived = once(video, 'seeked');
  video.currentTime = to;
  await arrived;
}

/** @param url of a file of this device, or of a clip that ships. @throws NoClip with words for whoever chose it */
export async function openClip(url: string): Promise<Clip> {
  const video = document.createElement('video');
  video.muted = true;
  video.playsInline = true;
  video.preload = 'auto';
  const ready = once(video, 'loadeddata');
  video.src = url;
  await ready;
  const { videoWidth: width, videoHeight: height } = video;
  if (width === 0 || height === 0) throw new NoClip(say.sight.noPicture);
  if (!Number.isFinite(video.duration)) {
    // A recording of a browser says how long it is only at its end.
    const known = once(video, 'durationchange');
    video.currentTime = FAR_AHEAD;
    await known;
    await seek(video, 0);
  }
  const { duration } = video;
  if (!(duration > 0.5)) throw new NoClip(say.sight.tooShort);
  const notes: string[] = [];
  if (duration > MOST_SECONDS) notes.push(say.sight.onlyTheFirstMinutesAre(MOST_SECONDS / 60));
  if (Math.max(width, height) > 1920) notes.push(say.sight.thePictureIsMadeSmaller);
  return { video, seconds: Math.min(duration, MOST_SECONDS), width, height, notes };
}

/** Of a file that the trainer chose. @throws NoClip */
export async function openFile(file: File): Promise<Clip> {
  if (file.size === 0) throw new NoClip(say.sight.emptyFile);
  const url = URL.createObjectURL(file);
  try {
    return await openClip(url);
  } catch (error) {
    URL.revokeObjectURL(url);
    throw error;
  }
}

/** The picture that is shown now, small enough to be looked at. */
export function pictureOf(video: HTMLVideoElement): Promise<ImageBitmap> {
  const { videoWidth: width, videoHeight: height } = video;
  const by = Math.min(1, MOST_PIXELS / Math.max(width, height));
  return createImageBitmap(video, {
    resizeWidth: Math.max(1, Math.round(width * by)),
    resizeHeight: Math.max(1, Math.round(height * by)),
    resizeQuality: 'low',
  });
}

/** Puts the player of a clip into a place of the page. */
export function layInto(place: HTMLElement | null, video: HTMLVideoElement, look: string): void {
  video.className = look;
  place?.prepend(video);
}

export function goTo(video: HTMLVideoElement, seconds: number): void {
  video.currentTime = seconds;
}

export function playAt(video: HTMLVideoElement, speed: number): void {
  video.playbackRate = speed;
}
