import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type View, VIEWS } from '../movement/index.js';
import {
  ANGLES,
  arcOf,
  AT_EASE,
  bodyAt,
  boundsOf,
  checkFigures,
  draw,
  type Figure,
  type FigureLibrary,
  type Frame,
  frameAt,
  LIMITS,
  marksOf,
  mirrored,
  MM_PER_CM,
  type Motion,
  motionOf,
  type Pose,
  projectionOf,
  shadowOf,
  type Shape,
  SIDES_OF_BODY,
  together,
  TONES,
} from './index.js';

const POSES = {
  stand: { 'hip.out': 6 },
  squat: { 'pelvis.tilt': 34, 'hip.flex': 120, 'knee.flex': 112, 'hip.out': 14 },
  reach: { 'shoulder.flex': 88 },
};

const DOSE = {
  dose: { mode: 'reps' as const, tempo: '3-1-1-0', windows: {} },
  phases: ['set-up' as const, 'lower' as const, 'bottom' as const, 'rise' as const],
  sides: 'both' as const,
};

function motionFrom(written: object): Motion {
  const checked = checkFigures({ it: { start: ['stand'], end: ['squat', 'reach'], ...written } }, POSES);
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const library: FigureLibrary = { poses: POSES, figures: checked.value };
  return motionOf(library, checked.value.it as Figure, DOSE);
}

const plain = motionFrom({});
/** A frame in any posture, with nothing that holds it. */
const loose = (pose: Pose): Frame => ({
  pose,
  body: bodyAt(pose),
  anchors: new Map(),
  phase: null,
  travelled: [0, 0, 0],
});
const posture: fc.Arbitrary<Pose> = fc
  .tuple(...ANGLES.map((angle) => fc.double({ min: LIMITS[angle][0], max: LIMITS[angle][1], noNaN: true })))
  .map((values) => Object.fromEntries(ANGLES.map((angle, i) => [angle, values[i]])) as Pose);

/** The first corner of a shape, in centimetres. */
const corner = ({ d }: Shape): [number, number] => {
  const [, x, y] = /^M(-?\d+) (-?\d+)/.exec(d) ?? [];
  return [Number(x) / MM_PER_CM, Number(y) / MM_PER_CM];
};

fc.configureGlobal({ endOnFailure: true });

describe('the drawing', () => {
  test('is made of whole, closed outlines in known tones, whatever the posture and the side', () => {
    fc.assert(
      fc.property(posture, fc.constantFrom(...VIEWS), fc.boolean(), (pose, view, reflect) => {
        const shapes = draw(plain, loose(pose), view, reflect);
        expect(shapes.length).toBeGreaterThan(14);
        for (const { d, tone } of shapes) {
          expect(TONES).toContain(tone);
          expect(d).toMatch(/^(M-?\d+ -?\d+([LA][-\d. ]+)+Z)+$/);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('puts the far side behind and paler, and nothing paler where neither side is far', () => {
    const tones = (view: View) => draw(plain, loose(AT_EASE), view).map(({ tone }) => tone);
    const side = tones('side');
    expect(side.indexOf('shorts-far')).toBeLessThan(side.indexOf('shorts'));
    expect(side.filter((tone) => tone === 'shoe')).toHaveLength(1);
    for (const view of ['front', 'back'] as const) {
      expect(tones(view).filter((tone) => tone.endsWith('-far'))).toEqual([]);
      expect(tones(view).filter((tone) => tone === 'shoe')).toHaveLength(2);
    }
  });

  test('shows the face from the front and the hair from behind', () => {
    const last = (view: View) => {
      const head = draw(plain, loose(AT_EASE), view).filter(
        (shape) => (shape.tone === 'skin' || shape.tone === 'hair') && corner(shape)[1] < -55,
      );
      return head.at(-1)?.tone;
    };
    expect([last('front'), last('back')]).toEqual(['skin', 'hair']);
  });

  test('reflected is the drawing of the mirrored posture', () => {
    const xs = (shapes: readonly Shape[]) =>
      shapes.flatMap(({ d }) => [...d.matchAll(/[ML](-?\d+) /g)].map(([, x]) => Number(x)));
    fc.assert(
      fc.property(posture, (pose) => {
        const reflected = xs(draw(plain, loose(pose), 'front', true));
        const mirror = xs(draw(plain, loose(mirrored(pose)), 'front'));
        // To half a centimetre: of two equal corners either may begin an outline.
        expect(Math.abs(Math.min(...reflected) - Math.min(...mirror))).toBeLessThan(5);
        expect(Math.abs(Math.max(...reflected) - Math.max(...mirror))).toBeLessThan(5);
      }),
      { numRuns: 40 },
    );
  });

  test('puts a load into the hand that holds it, and furniture under what rests on it', () => {
    const held = motionFrom({
      holds: [{ item: 'dumbbell', in: 'right' }],
      props: [{ item: 'step', at: 'right.foot', height: 20 }],
    });
    const frame = frameAt(held, 0);
    const shapes = draw(held, frame, 'side');
    const load = shapes.find(({ tone }) => tone === 'load');
    const step = shapes.find(({ tone }) => tone === 'prop');
    if (!load || !step) throw new Error('not drawn');
    const { wrist, ball } = frame.body.right;
    expect(Math.hypot(corner(load)[0] - wrist[0], corner(load)[1] + wrist[1])).toBeLessThan(25);
    expect(Math.abs(corner(step)[0] - ball[0])).toBeLessThan(25);
    expect(draw(plain, frame, 'side').some(({ tone }) => tone === 'load' || tone === 'prop')).toBe(false);
  });

  test('draws a cable from where it hangs to both hands', () => {
    const pulled = motionFrom({ lines: [{ item: 'cable', from: [60, 200, 0], to: 'hands' }] });
    const cables = draw(pulled, frameAt(pulled, 0), 'front').filter(({ tone }) => tone === 'line');
    expect(cables).toHaveLength(2);
    for (const cable of cables) {
      expect(corner(cable)[0]).toBeCloseTo(0, 6);
      expect(corner(cable)[1]).toBeCloseTo(-200, 6);
    }
  });
});

describe('what stands around a figure', () => {
  test('its frame holds every joint at every moment, from every side', () => {
    for (const view of VIEWS) {
      const { x, y, width, height } = boundsOf(plain, view);
      for (let seconds = 0; seconds < plain.seconds; seconds += 0.2) {
        const { body } = frameAt(plain, seconds);
        for (const side of SIDES_OF_BODY)
          for (const point of [body[side].fingertip, body[side].toe, body[side].elbow, body.crown]) {
            const spot = projectionOf(view)(point);
            expect(spot.x).toBeGreaterThan(x);
            expect(spot.x).toBeLessThan(x + width);
            expect(spot.y).toBeGreaterThan(y);
            expect(spot.y).toBeLessThan(y + height);
          }
      }
    }
  });

  test('a frame round two holds both and no more', () => {
    const a = { x: -10, y: -50, width: 20, height: 55 };
    const b = { x: 0, y: -80, width: 40, height: 60 };
    expect(together(a, b)).toEqual({ x: -10, y: -80, width: 50, height: 85 });
    expect(together(b, a)).toEqual(together(a, b));
    expect(together(a, a)).toEqual(a);
  });

  test('a mark is at both knees from the front and at one where they hide one another', () => {
    const frame = frameAt(plain, 0);
    const front = marksOf(frame, 'front', 'knees');
    expect(front).toHaveLength(2);
    expect(front[0]?.x).toBeCloseTo(-(front[1]?.x ?? NaN), 6);
    expect(marksOf(frame, 'side', 'knees')).toHaveLength(1);
    expect(marksOf(frame, 'side', 'low-back')).toHaveLength(1);
  });

  test('the angle that is written is the angle of the joint', () => {
    const bottom = frameAt(plain, 3.1);
    for (const joint of ['knee', 'hip', 'elbow', 'ankle'] as const) {
      const { degrees, d } = arcOf(bottom, 'side', joint);
      expect(degrees).toBe(Math.round(bottom.pose[`right.${joint}.flex`]));
      expect(d).toMatch(/^M.*A17 17 0 0 [01] /);
    }
    expect(arcOf(bottom, 'side', 'trunk').degrees).toBeGreaterThan(25);
    expect(arcOf(frameAt(plain, 0), 'side', 'trunk').degrees).toBeLessThan(5);
  });

  test('the shadow lies under the feet of whoever stands', () => {
    const frame = frameAt(plain, 0);
    const { x, half } = shadowOf(frame, 'side');
    for (const { heel, toe } of [frame.body.left, frame.body.right])
      for (const [at] of [heel, toe]) expect(Math.abs(at - x)).toBeLessThan(half);
  });
});
