/** Finds bodies on pictures, off the page's own thread. Pictures come in and are let go; only places on a body go out. */
import { type Landmark, type NormalizedLandmark, PoseLandmarker } from '@mediapipe/tasks-vision';
import type { Body } from '@waxwing/core/sight';
import { expose, transfer } from 'comlink';

import { bodyFrom } from './body-from';

/** How sure the model has to be. */
const LEAST_SURE = 0.5;
/** So many people are told apart on the first picture. */
const MOST_PEOPLE = 4;
/** What is round a body belongs to its picture: in its own heights. */
const ROOM_AROUND = 0.45;

export interface Files {
  loader: string;
  engine: string;
  model: Uint8Array;
}

interface Region {
  x: number;
  y: number;
  width: number;
  height: number;
}

let landmarker: PoseLandmarker | undefined;
let mode: 'first' | 'follow' | undefined;
/** Times given to the model have to rise from one clip to the next, and to pass as they do in the clip: it smooths by them. */
let [begins, latest] = [0, 0];
const BETWEEN_CLIPS_MS = 10_000;
let region: Region | null = null;
const canvas = new OffscreenCanvas(1, 1);
const pen = canvas.getContext('2d', { willReadFrequently: true });

async function setMode(wanted: 'first' | 'follow'): Promise<PoseLandmarker> {
  if (!landmarker) throw new Error('The eye is not open yet.');
  if (mode !== wanted)
    await landmarker.setOptions(
      wanted === 'first' ? { runningMode: 'IMAGE', numPoses: MOST_PEOPLE } : { runningMode: 'VIDEO', numPoses: 1 },
    );
  mode = wanted;
  return landmarker;
}

/** The picture on the canvas; of a chosen person only what is round them, so that nobody else is taken for them. */
function shown(picture: ImageBitmap): ImageBitmap | OffscreenCanvas {
  if (!region) return picture;
  const { width, height } = picture;
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  const { x, y, width: w, height: h } = region;
  pen?.fillRect(0, 0, width, height);
  pen?.drawImage(picture, x, y, w, h, x, y, w, h);
  return canvas;
}

const bodiesOf = (
  { landmarks, worldLandmarks }: { landmarks: NormalizedLandmark[][]; worldLandmarks: Landmark[][] },
  { width, height }: { width: number; height: number },
): Body[] =>
  landmarks.flatMap((flat, i) => {
    const body = bodyFrom(flat, worldLandmarks[i] ?? [], width / height);
    return body ? [body] : [];
  });

function regionRound(body: Body, { width, height }: { width: number; height: number }): Region {
  const { left, top, right, bottom } = body.box;
  const more = ROOM_AROUND * Math.max(bottom - top, right - left);
  const [x, y] = [Math.max(0, (left - more) * height), Math.max(0, (top - more) * height)];
  return {
    x,
    y,
    width: Math.min(width, (right + more) * height) - x,
    height: Math.min(height, (bottom + more) * height) - y,
  };
}

const eye = {
  async open({ loader, engine, model }: Files): Promise<void> {
    landmarker ??= await PoseLandmarker.createFromOptions(
      { wasmLoaderPath: loader, wasmBinaryPath: engine },
      {
        baseOptions: { modelAssetBuffer: model, delegate: 'CPU' },
        runningMode: 'IMAGE',
        numPoses: MOST_PEOPLE,
        minPoseDetectionConfidence: LEAST_SURE,
        minPosePresenceConfidence: LEAST_SURE,
        minTrackingConfidence: LEAST_SURE,
      },
    );
  },
  /** Everybody on a picture, from left to right. */
  async everybody(picture: ImageBitmap): Promise<Body[]> {
    const model = await setMode('first');
    region = null;
    const bodies = bodiesOf(model.detect(shown(picture)), picture);
    picture.close();
    return bodies.sort((a, b) => a.box.left - b.box.left);
  },
  /** Begins to follow one of several people; null for whoever there is. @param size pixels of the pictures to come */
  async choose(body: Body | null, size: { width: number; height: number }): Promise<void> {
    await setMode('follow');
    begins = latest + BETWEEN_CLIPS_MS;
    region = body && regionRound(body, size);
  },
  /** Where the person is on the next picture; null when nobody is seen. @param at seconds of the clip */
  async follow(picture: ImageBitmap, at: number): Promise<Body | null> {
    const model = await setMode('follow');
    latest = Math.max(latest + 1, begins + Math.round(at * 1000));
    const [body = null] = bodiesOf(model.detectForVideo(shown(picture), latest), picture);
    if (body && region) region = regionRound(body, picture);
    picture.close();
    return body && transfer(body, [body.flat.buffer, body.deep.buffer, body.seen.buffer]);
  },
};

export type Eye = typeof eye;

expose(eye);
