/** One moment of a motion as a picture: the figure on its floor, with a mark, an angle or a ghost of the clean rep where asked for. */
import './figure.css';

import {
  arcOf,
  boundsOf,
  type Box,
  type Camera,
  cameraOf,
  type Eye,
  eyeFor,
  type FigureFault,
  type Ground,
  marksOf,
  type Motion,
  otherSide,
  paletteOf,
  type Scene,
  seenBy,
  stagerFor,
  tinted,
} from '@waxwing/core/body';
import type { Movement, View } from '@waxwing/core/movement';
import { useLayoutEffect, useMemo, useRef } from 'react';

import { paint } from './paint';
import type { Picture } from './picture';
import { filling } from './plain-stage';
import { type Cast, useCast } from './skins';
import { sharedStage } from './stage';
import type { Time } from './time';
import { useSize } from './use-size';

interface Props {
  motion: Motion;
  /** Seconds, or a time that runs. */
  at: number | Time;
  /** Seconds of the motion to one of the time. */
  rate?: number;
  view: View | Eye;
  /** Empty where the words beside it say it all. */
  title: string;
  reflect?: boolean;
  /** Drawn pale behind, such as the clean rep behind its fault. */
  ghost?: Motion | undefined;
  mark?: FigureFault['mark'] | undefined;
  /** Shows the angle of the joint that tells the most. */
  angle?: boolean;
  /** Colours the muscles that work. */
  muscles?: Movement['muscles'] | undefined;
  /** A frame shared with other pictures; the motion's own without. */
  box?: Box | undefined;
  className?: string;
}

export function FigureDrawing({
  motion,
  at,
  rate = 1,
  view,
  title,
  reflect = false,
  ghost,
  mark,
  angle = false,
  muscles,
  box,
  className,
}: Props) {
  const whole = useMemo(() => box ?? boundsOf(motion, view), [box, motion, view]);
  const cast = useCast(motion);
  const runs = typeof at !== 'number';
  const [holder, size] = useSize();
  const quick = runs && size !== null && size.width * size.height <= SMALL_PIXELS && !sharedStage().card;
  const skin = quick ? cast?.light : cast?.skin;
  const stager = useMemo(
    () => skin && stagerFor(motion, skin, muscles && tinted(skin, muscles)),
    [skin, motion, muscles],
  );
  const ghostStager = useMemo(() => skin && ghost && stagerFor(ghost, skin), [skin, ghost]);
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const marksRef = useRef<SVGGElement>(null);
  const arcRef = useRef<SVGGElement>(null);
  const degreesRef = useRef<SVGTextElement>(null);
  const frame = size ? filling(whole, size.width / size.height) : whole;

  useLayoutEffect(() => {
    const canvas = canvasRef.current;
    if (!canvas || !size || !cast || !stager) return undefined;
    fit(canvas, size);
    const show = (): void => {
      const seconds = (runs ? at.seconds : at) * rate;
      const scene = stager(seconds);
      const camera = cameraOf(
        eyeFor(view, motion.position),
        reflect !== otherSide(motion, seconds),
        scene.frame.travelled,
      );
      const layers = ghostStager ? [{ share: GHOST_SHARE, scene: ghostStager(seconds) }] : [];
      drawOn(canvas, [...layers, { share: 1, scene }], cast, camera, frame, quick ? 'quick' : runs ? 'plain' : 'fine');
      const see = seenBy(camera);
      const marks = mark ? marksOf(scene.frame, see, mark) : [];
      paint(
        marksRef.current,
        'circle',
        marks.map((spot) => ({ cx: spot.x, cy: spot.y, r: 13 })),
      );
      const arc = angle && motion.figure.joint ? arcOf(scene.frame, see, motion.figure.joint) : null;
      paint(arcRef.current, 'path', arc ? [{ d: arc.d }] : []);
      const degrees = degreesRef.current;
      if (!degrees) return;
      degrees.textContent = arc ? `${arc.degrees}°` : '';
      degrees.setAttribute('x', String(arc ? arc.at.x + 20 : 0));
      degrees.setAttribute('y', String(arc ? arc.at.y - 12 : 0));
    };
    show();
    return runs ? at.subscribe(show) : undefined;
  });
  return (
    <div
      ref={holder}
      {...(title ? { role: 'img', 'aria-label': title } : { 'aria-hidden': true })}
      className={`figure ${className ?? ''}`}
      data-ghost={ghostStager !== undefined || undefined}
    >
      <canvas ref={canvasRef} />
      <svg viewBox={`${frame.x} ${frame.y} ${frame.width} ${frame.height}`} aria-hidden>
        <g className="mark" ref={marksRef} />
        <g className="arc" ref={arcRef} />
        <text className="degrees" ref={degreesRef} />
      </svg>
    </div>
  );
}

const GHOST_SHARE = 0.3;
/** How dark the blot on the floor is. */
const SHADOW: Readonly<Record<Ground, number>> = { light: 0.3, dim: 0.6, contrast: 0.5 };
/** How thick the contour is, in centimetres. */
const CONTOUR_CM: Readonly<Record<Ground, number>> = { light: 0.18, dim: 0.18, contrast: 0.6 };
/** Up to this size fewer triangles are enough. */
const SMALL_PIXELS = 240 * 340;
/** More pixels than this to one of the page are not seen. */
const MOST_DENSE = 2;

function fit(canvas: HTMLCanvasElement, { width, height }: { width: number; height: number }): void {
  const dense = Math.min(MOST_DENSE, window.devicePixelRatio || 1);
  const [w, h] = [Math.round(width * dense), Math.round(height * dense)];
  if (canvas.width !== w) canvas.width = w;
  if (canvas.height !== h) canvas.height = h;
}

/** What a figure stands on in the theme of now. */
export function groundNow(): Ground {
  const page = document.documentElement;
  if (page.dataset.theme === 'waxwing-contrast') return 'contrast';
  return getComputedStyle(page).colorScheme === 'dark' ? 'dim' : 'light';
}

/** Scenes over one another, the paler ones first. */
function drawOn(
  canvas: HTMLCanvasElement,
  layers: readonly { share: number; scene: Scene }[],
  { person }: Cast,
  camera: Camera,
  box: Box,
  detail: Picture['detail'],
): void {
  const onto = canvas.getContext('2d');
  if (!onto) return;
  const ground = groundNow();
  const palette = paletteOf(person, ground);
  const around = { camera, box, palette, shadow: SHADOW[ground], contour: CONTOUR_CM[ground], detail };
  sharedStage().draw(
    onto,
    layers.map(({ share, scene }) => ({ share, picture: { scene, ...around } })),
  );
}
