/** A set watched through the camera: what the eye sees is read anew every second, and each further rep is told. */
import type { Movement } from '@waxwing/core/movement';
import { type Reading, seriesFrom, type Sighting } from '@waxwing/core/sight';
import { transfer } from 'comlink';
import { useEffect, useEffectEvent, useRef, useState } from 'react';

import { say } from '../words/say';
import { pictureOf } from './clip';
import { NoEye, openEye } from './eye';
import { drawBody } from './overlay';
import { readIn } from './reader';
import { useCamera } from './use-camera';
import { RATE } from './watch-clip';

/** Seconds between two readings. */
const EVERY = 0.8;

export interface LiveWatch {
  /** 0–1 while what is needed comes. */
  opening: number | null;
  trouble: string | null;
  reading: Reading | null;
  /** Follows whoever is at this place of the picture, in shares of its width and height. */
  pick: (x: number, y: number) => void;
}

interface Wanted {
  movement: Movement;
  tempo: string;
  video: React.RefObject<HTMLVideoElement | null>;
  canvas: React.RefObject<HTMLCanvasElement | null>;
  facing: 'environment' | 'user';
  onReps: (count: number) => void;
}

export function useLiveWatch({ movement, tempo, video, canvas, facing, onReps }: Wanted): LiveWatch {
  const { stream, trouble: noCamera } = useCamera(facing);
  const [opening, setOpening] = useState<number | null>(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [reading, setReading] = useState<Reading | null>(null);
  const picked = useRef<{ x: number; y: number } | 'largest' | null>('largest');
  const told = useEffectEvent((read: Reading) => {
    setReading(read);
    // What cannot be told rep from rep fills no counter.
    if (read.count !== 'rough') onReps(read.reps.length);
  });
  const said = useEffectEvent((error: unknown) =>
    setTrouble(error instanceof NoEye ? error.message : say.sight.watchingStoppedEverythingElseGoes),
  );
  const readNow = useEffectEvent((sightings: readonly Sighting[]) =>
    readIn(seriesFrom(sightings), movement, tempo, {}),
  );

  useEffect(() => {
    const player = video.current;
    if (!stream || !player) return undefined;
    feed(player, stream);
    // Another camera sees other people.
    picked.current = 'largest';
    let gone = false;
    const watch = async (): Promise<void> => {
      const eye = await openEye((share) => !gone && setOpening(share));
      setOpening(null);
      await player.play();
      const began = performance.now();
      const sightings: Sighting[] = [];
      let [readAt, reads] = [0, false];
      while (!gone) {
        const started = performance.now();
        const at = (started - began) / 1000;
        if (player.videoWidth === 0) {
          await nextPicture(player);
          continue;
        }
        const picture = await pictureOf(player);
        if (picked.current) {
          const [wanted, size] = [picked.current, { width: picture.width, height: picture.height }];
          picked.current = null;
          const people = await eye.everybody(transfer(picture, [picture]));
          const tall = ({ box }: (typeof people)[number]): number => box.bottom - box.top;
          const hit =
            wanted === 'largest'
              ? people
              : people.filter(({ box }) => {
                  const [x, y] = [(wanted.x * size.width) / size.height, wanted.y];
                  return x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
                });
          const [chosen = null] = hit.toSorted((a, b) => tall(b) - tall(a));
          await eye.choose(people.length > 1 ? chosen : null, size);
          continue;
        }
        const body = await eye.follow(transfer(picture, [picture]), at);
        sightings.push({ at, body });
        show(canvas.current, player, body && { at, body });
        if (!reads && at - readAt >= EVERY) {
          [readAt, reads] = [at, true];
          readNow(sightings)
            .then((read) => {
              if (!gone && read) told(read);
            })
            .catch((error: unknown) => !gone && said(error))
            .finally(() => (reads = false));
        }
        // No more pictures than are wanted: the page has other things to do.
        const left = 1000 / RATE - (performance.now() - started);
        if (left > 0) await new Promise((resolve) => setTimeout(resolve, left));
      }
    };
    watch().catch((error: unknown) => !gone && said(error));
    return () => {
      gone = true;
      feed(player, null);
    };
  }, [stream, video, canvas]);

  return {
    opening: stream ? opening : null,
    trouble: noCamera ?? trouble,
    reading,
    pick: (x, y) => {
      picked.current = { x, y };
    },
  };
}

function feed(player: HTMLVideoElement, stream: MediaStream | null): void {
  player.srcObject = stream;
}

const nextPicture = (player: HTMLVideoElement): Promise<void> =>
  new Promise((resolve) => player.requestVideoFrameCallback(() => resolve()));

function show(canvas: HTMLCanvasElement | null, player: HTMLVideoElement, seen: Sighting | null): void {
  const pen = canvas?.getContext('2d');
  if (!canvas || !pen) return;
  if (canvas.width !== player.videoWidth) canvas.width = player.videoWidth;
  if (canvas.height !== player.videoHeight) canvas.height = player.videoHeight;
  pen.clearRect(0, 0, canvas.width, canvas.height);
  if (seen?.body) drawBody(pen, seriesFrom([seen]), 0, canvas.height);
}
