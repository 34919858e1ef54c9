/** Films the figure: a person who moves as told, before a plain wall, in frames that go to the eye or into a file. */
import broad from '@waxwing/body/baked/broad.bin?url';
import narrow from '@waxwing/body/baked/narrow.bin?url';
import {
  assembled,
  boundsOf,
  type Camera,
  cameraOf,
  eyeFor,
  type FigureLibrary,
  handsOf,
  type Motion,
  motionOf,
  otherSide,
  paletteOf,
  personFor,
  readSkin,
  stagerFor,
} from '@waxwing/core/body';
import { figureIdOf, type Looks, type Movement, type View } from '@waxwing/core/movement';
import type { Sighting } from '@waxwing/core/sight';
import { BufferTarget, CanvasSource, Output, WebMOutputFormat } from 'mediabunny';

import type { Picture } from '../src/figures/picture';
import { filling } from '../src/figures/plain-stage';
import { sharedStage } from '../src/figures/stage';
import { openEye } from '../src/sight/eye';

export interface Scene {
  library: FigureLibrary;
  movement: Pick<Movement, 'id' | 'drawnAs' | 'dose' | 'sides' | 'phases'>;
  /** Faults with how much of each, 0–1. */
  faults: Record<string, number>;
  view: View;
  looks: Looks | null;
  rounds: number;
  /** Times as fast as the tempo of the movement says. */
  speed: number;
  /** Pictures a second. */
  rate: number;
  trouble: 'none' | 'small' | 'dim' | 'jitter' | 'cut' | 'second' | 'enters' | 'empty';
}

const [WIDTH, HEIGHT] = [480, 640];
/** Seconds of standing before and after. */
const STILL = 0.8;
/** Pictures that the pace is taken of. */
const PACED = 60;
const WALL = '#d8d3ca';
const FLOOR = '#b9ad9c';
/** Where the wall meets the floor, in heights of the picture. */
const EDGE = 0.82;

export const secondsOf = (motion: Motion, { rounds, speed }: Scene): number =>
  (motion.seconds * rounds) / speed + 2 * STILL;

const FILES = { broad, narrow } as const;

async function prepared(scene: Scene) {
  const { library, movement, faults, view, looks } = scene;
  const figure = library.figures[figureIdOf(movement)];
  if (!figure) throw new Error(`${movement.id} is not drawn`);
  const motion = motionOf(library, figure, movement, faults, movement.id);
  const person = personFor(movement.id, looks);
  const file = readSkin(await (await fetch(FILES[person.build])).arrayBuffer());
  const stager = stagerFor(motion, assembled(file, { hands: handsOf(motion), hair: person.hair }));
  const palette = paletteOf(person);
  const bounds = boundsOf(motion, view);
  const canvas = new OffscreenCanvas(WIDTH, HEIGHT);
  const pen = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
  const own = document.createElement('canvas');
  own.width = WIDTH;
  own.height = HEIGHT;
  const ownPen = own.getContext('2d') as CanvasRenderingContext2D;
  const around = { small: 2.6, cut: 0.82 } as Partial<Record<Scene['trouble'], number>>;
  const by = around[scene.trouble] ?? 1.3;
  const box = filling(
    {
      x: bounds.x - (bounds.width * (by - 1)) / 2,
      y: bounds.y - bounds.height * (by - 1) * 0.7,
      width: bounds.width * by,
      height: bounds.height * by,
    },
    WIDTH / HEIGHT,
  );

  /** Draws the moment onto the canvas. */
  const show = async (seconds: number): Promise<OffscreenCanvas> => {
    const inside = Math.max(0, Math.min(motion.seconds * scene.rounds - 1e-6, (seconds - STILL) * scene.speed));
    const staged = stager(inside);
    const camera: Camera = cameraOf(eyeFor(view, motion.position), otherSide(motion, inside), staged.frame.travelled);
    const picture: Picture = { scene: staged, camera, box, palette, shadow: 0.3, contour: 0.18, detail: 'plain' };
    sharedStage().draw(ownPen, [{ share: 1, picture }]);
    await Promise.resolve();
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.filter = 'none';
    pen.fillStyle = WALL;
    pen.fillRect(0, 0, WIDTH, HEIGHT);
    pen.fillStyle = FLOOR;
    pen.fillRect(0, HEIGHT * EDGE, WIDTH, HEIGHT);
    if (scene.trouble === 'empty') return canvas;
    if (scene.trouble === 'dim') pen.filter = 'brightness(0.35) contrast(0.8)';
    const [dx, dy] = scene.trouble === 'jitter' ? [Math.sin(seconds * 17) * 6, Math.sin(seconds * 23 + 1) * 5] : [0, 0];
    const length = secondsOf(motion, scene);
    const enters = scene.trouble === 'enters' ? WIDTH * (1 - Math.min(1, seconds / 2)) : 0;
    const leaves = scene.trouble === 'enters' ? WIDTH * Math.max(0, 1 - (length - seconds) / 2) : 0;
    if (scene.trouble === 'second') {
      pen.drawImage(own, 0, 0, WIDTH, HEIGHT, -WIDTH * 0.28, HEIGHT * 0.2, WIDTH * 0.7, HEIGHT * 0.7);
      pen.drawImage(own, WIDTH * 0.3, HEIGHT * 0.2, WIDTH * 0.7, HEIGHT * 0.7);
    } else pen.drawImage(own, dx + enters - leaves, dy);
    return canvas;
  };
  return { motion, show, length: secondsOf(motion, scene) };
}

/** Each frame through the eye: what it saw, and how long a picture took. */
async function read(scene: Scene): Promise<{ sightings: Sighting[]; millis: number; people: number }> {
  const eye = await openEye();
  const { show, length } = await prepared(scene);
  const sightings: Sighting[] = [];
  const everybody = await eye.everybody((await show(length / 2)).transferToImageBitmap());
  const largest = everybody.toSorted((a, b) => b.box.bottom - b.box.top - (a.box.bottom - a.box.top))[0] ?? null;
  await eye.choose(everybody.length > 1 ? largest : null, { width: WIDTH, height: HEIGHT });
  let millis = 0;
  for (let i = 0; i / scene.rate < length; i += 1) {
    const picture = (await show(i / scene.rate)).transferToImageBitmap();
    const began = performance.now();
    sightings.push({ at: i / scene.rate, body: await eye.follow(picture, i / scene.rate) });
    millis += performance.now() - began;
  }
  return { sightings, millis: millis / sightings.length, people: everybody.length };
}

/** Milliseconds that one picture takes, with nothing else going on. */
async function pace(scene: Scene): Promise<number> {
  const eye = await openEye();
  const { show } = await prepared(scene);
  const pictures: ImageBitmap[] = [];
  for (let i = 0; i < PACED; i += 1) pictures.push((await show(i / scene.rate)).transferToImageBitmap());
  await eye.choose(null, { width: WIDTH, height: HEIGHT });
  const began = performance.now();
  for (const [i, picture] of pictures.entries()) await eye.follow(picture, i / scene.rate);
  return (performance.now() - began) / PACED;
}

/** A clip as a file that a browser plays. */
async function record(scene: Scene): Promise<Uint8Array> {
  const { show, length } = await prepared(scene);
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const canvas = await show(0);
  const video = new CanvasSource(canvas, { codec: 'vp8', bitrate: 220_000, keyFrameInterval: 2 });
  output.addVideoTrack(video, { frameRate: scene.rate });
  await output.start();
  for (let i = 0; i / scene.rate < length; i += 1) {
    await show(i / scene.rate);
    await video.add(i / scene.rate, 1 / scene.rate);
  }
  await output.finalize();
  return new Uint8Array(target.buffer as ArrayBuffer);
}

const film = { read, pace, record };
export type Film = typeof film;
Object.assign(window, { film });
