import { describe, expect, test } from '@jest/globals';

import {
  ANGLES,
  baseOf,
  beyond,
  bodyAt,
  centreOfMass,
  checkFigures,
  checkPoses,
  distance,
  type FigureLibrary,
  frameAt,
  mirrored,
  type Motion,
  motionOf,
  pathsOf,
  phasesOfRep,
  pointOf,
  repSeconds,
  SIDES_OF_BODY,
} from './index.js';

const POSES = {
  stand: { 'hip.out': 6 },
  low: { 'pelvis.tilt': 30, 'hip.flex': 100, 'knee.flex': 96 },
  stride: { 'right.hip.flex': 24, 'left.hip.flex': -18, 'left.heel.lift': 28 },
  swing: { 'left.hip.flex': 30, 'left.knee.flex': 60 },
  'other-stride': { 'left.hip.flex': 24, 'right.hip.flex': -18, 'right.heel.lift': 28 },
  'other-swing': { 'right.hip.flex': 30, 'right.knee.flex': 60 },
};

function motion(written: object, tempo = '3-1-2-0', faults: Record<string, number> = {}): Motion {
  const checked = checkFigures({ it: written }, POSES);
  if (!checked.ok || !checked.value.it) throw new Error(checked.ok ? 'nothing' : JSON.stringify(checked.problems));
  const library: FigureLibrary = { poses: POSES, figures: checked.value };
  const dose = { mode: 'reps' as const, tempo, windows: {} };
  return motionOf(
    library,
    checked.value.it,
    { dose, phases: ['set-up', 'lower', 'bottom', 'rise'], sides: 'both' },
    faults,
  );
}

const height = (of: Motion, seconds: number) => frameAt(of, seconds).body.root[1];

describe('the time of a rep', () => {
  test('is the tempo, in the order in which the movement goes', () => {
    expect(repSeconds('3-1-2-0', 'lower')).toEqual([3, 1, 2, 0.4]);
    expect(repSeconds('3-1-2-0', 'rise')).toEqual([2, 0.4 / 2, 3, 1]);
    expect(repSeconds('0-0-0-0', 'lower')).toEqual([1.5, 0.2, 1.5, 0.4]);
    expect(repSeconds('1-0-0-0', 'lower')[2]).toBeGreaterThan(0.5);
  });

  test('has the phases of the movement, postures before and after left out', () => {
    expect(phasesOfRep(['set-up', 'lower', 'bottom', 'rise', 'finish'], 'lower')).toEqual([
      'lower',
      'bottom',
      'rise',
      'rise',
    ]);
    expect(phasesOfRep(['set-up', 'pull', 'return'], 'rise')).toEqual(['pull', 'pull', 'return', 'return']);
    expect(phasesOfRep(['enter', 'hold', 'leave'], 'lower')).toEqual(['hold', 'hold', 'hold', 'hold']);
    expect(phasesOfRep(['set-up'], 'lower')).toEqual([null, null, null, null]);
  });

  test('has the phase of what is drawn, where the figure begins in the middle of the rep', () => {
    const lowered = ['set-up', 'lower', 'bottom', 'rise', 'top', 'finish'] as const;
    expect(phasesOfRep(lowered, 'rise')).toEqual(['rise', 'top', 'lower', 'bottom']);
    expect(phasesOfRep(['step', 'lower', 'rise', 'return'], 'rise')).toEqual(['rise', 'rise', 'lower', 'lower']);
    expect(phasesOfRep(['rise', 'lower'], 'lower')).toEqual(['lower', 'lower', 'rise', 'rise']);
  });

  test('is lowest through the pause, begins anew after its end, and says its phase', () => {
    const squat = motion({ start: ['stand'], end: ['low'] });
    expect(squat.seconds).toBeCloseTo(6.4, 9);
    expect(height(squat, 3.2)).toBeCloseTo(height(squat, 3.8), 6);
    expect(height(squat, 3.5)).toBeLessThan(height(squat, 0) - 20);
    expect(height(squat, 6.4 + 1)).toBeCloseTo(height(squat, 1), 6);
    expect(height(squat, -0.1)).toBeCloseTo(height(squat, 6.3), 6);
    expect([1, 3.5, 5].map((seconds) => frameAt(squat, seconds).phase)).toEqual(['lower', 'bottom', 'rise']);
  });
});

describe('ways of moving', () => {
  test('a hold breathes without moving its feet', () => {
    const still = motion({ start: ['low'] });
    const bends = [0, 1, 2, 3].map((seconds) => frameAt(still, seconds).pose['thorax.flex']);
    expect(Math.max(...bends) - Math.min(...bends)).toBeGreaterThan(0.5);
    const feet = [0, 1, 2, 3].map((seconds) => frameAt(still, seconds).body.left.ball);
    for (const foot of feet) expect(distance(foot, feet[0] ?? [0, 0, 0])).toBeLessThan(0.1);
  });

  test('a jump leaves the floor and comes back to where it began', () => {
    const jump = motion({
      start: ['stand'],
      via: [['low']],
      end: { pose: ['stand'], contacts: {}, lift: 30 },
      back: [['low']],
    });
    const ground = frameAt(jump, 0).body;
    const top = frameAt(jump, 3.5).body;
    expect(Math.min(top.left.ball[1], top.right.heel[1])).toBeGreaterThan(20);
    expect(top.root[1]).toBeCloseTo(ground.root[1] + 30, 0);
    expect(distance(frameAt(jump, jump.seconds - 0.01).body.left.ball, ground.left.ball)).toBeLessThan(0.5);
  });

  test('a walk puts one foot before the other, and each stays where it was put', () => {
    const walk = motion({
      start: ['stand'],
      cycle: [
        ['stride'],
        { pose: ['swing'], contacts: { 'right.foot': 0 } },
        ['other-stride'],
        { pose: ['other-swing'], contacts: { 'left.foot': 0 } },
      ],
      step: 0.5,
    });
    expect(walk.travel[0]).toBeGreaterThan(40);
    expect(Math.abs(walk.travel[2])).toBeLessThan(3);
    const stance = [0.05, 0.4, 0.8].map((seconds) => frameAt(walk, seconds).body.right.ball);
    for (const foot of stance) expect(distance(foot, stance[0] ?? [0, 0, 0])).toBeLessThan(0.5);
    expect(frameAt(walk, 1.9).travelled[0]).toBeCloseTo(walk.travel[0] * 0.95, 6);
  });
});

test('a round that alternates goes on as its own mirror image, and stays in its place when it does', () => {
  const march = motion({
    start: ['stand'],
    cycle: [{ pose: ['swing'], contacts: { 'right.foot': 0 } }, ['stand']],
    alternates: true,
    step: 0.5,
  });
  expect(march.seconds).toBe(2);
  expect(Math.hypot(...march.travel)).toBeLessThan(0.5);
  for (const seconds of [0, 0.2, 0.5, 0.9]) {
    const [one, other] = [frameAt(march, seconds).pose, mirrored(frameAt(march, seconds + 1).pose)];
    for (const angle of ANGLES) expect([angle, Math.abs(one[angle] - other[angle]) < 0.5]).toEqual([angle, true]);
  }
});

describe('balance', () => {
  const standing = (pose: object, more: object = {}) => motion({ start: ['stand', pose], ...more });
  const outBy = (of: Motion): number => {
    const key = of.keys[0];
    if (!key) throw new Error('no posture');
    const body = bodyAt(key.pose, key.root);
    const feet = SIDES_OF_BODY.filter((side) => key.anchors.has(`${side}.foot`));
    return beyond(baseOf(body, key.pose, feet), centreOfMass(body, of.figure.holds));
  };

  test('is found by whoever stands free: bowed, squatting, on one leg, on the toes, with a weight', () => {
    const bowed = { 'pelvis.tilt': 60, 'hip.flex': 62, 'knee.flex': 6 };
    expect(outBy(standing(bowed))).toBeLessThan(0);
    expect(outBy(standing(bowed, { contacts: { feet: 0 }, holds: [{ item: 'barbell', in: 'across' }] }))).toBeLessThan(
      0,
    );
    expect(outBy(standing({ 'pelvis.tilt': 10, 'hip.flex': 100, 'knee.flex': 100 }))).toBeLessThan(0);
    expect(
      outBy(standing({ 'left.hip.flex': 60, 'left.knee.flex': 80 }, { contacts: { 'right.foot': 0 } })),
    ).toBeLessThan(0);
    expect(outBy(standing({ 'heel.lift': 34 }))).toBeLessThan(0);
  });

  test('moves nobody who leans on something, and no foot', () => {
    const sat = { 'hip.flex': 90, 'knee.flex': 90 };
    const free = standing(sat);
    const leaning = standing(sat, { props: [{ item: 'wall', at: [-16, 0, 0] }] });
    expect(outBy(leaning)).toBeGreaterThan(10);
    expect(leaning.keys[0]?.pose['left.knee.flex']).toBeCloseTo(90, 6);
    for (const { body, anchors } of [frameAt(free, 0)])
      for (const [contact, { at }] of anchors) expect(distance(pointOf(body, contact), at)).toBeLessThan(0.5);
  });

  test('of the base: every planted point lies within it, and the middle of all is the safest', () => {
    const { body, pose } = frameAt(standing({ 'right.hip.flex': 30, 'left.hip.flex': -20 }), 0);
    const base = baseOf(body, pose, SIDES_OF_BODY);
    for (const side of SIDES_OF_BODY)
      for (const point of [body[side].heel, body[side].ball, body[side].toe])
        expect(beyond(base, point)).toBeLessThanOrEqual(1e-6);
    expect(beyond(base, [500, 0, 0])).toBeGreaterThan(400);
  });
});

describe('faults', () => {
  const squat = {
    start: ['stand'],
    end: ['low'],
    faults: {
      narrow: { set: { 'hip.out': -10 }, at: 'all', stance: true, mark: 'ankles' },
      knees: { set: { 'hip.out': -20, 'hip.turn': 20 }, mark: 'knees' },
      early: { set: { 'thorax.flex': 20 }, at: 'start', mark: 'upper-back' },
      tiptoe: { set: { 'right.hip.flex': 30 }, free: ['right.foot'], mark: 'ankles' },
    },
  };
  const width = (of: Motion, part: 'ball' | 'knee', seconds: number) => {
    const { left, right } = frameAt(of, seconds).body;
    return distance(left[part], right[part]);
  };

  test('leave the feet where the clean rep has them, unless it is the stance that is wrong', () => {
    const clean = motion(squat);
    const knees = motion(squat, '3-1-2-0', { knees: 1 });
    expect(width(knees, 'ball', 3.5)).toBeCloseTo(width(clean, 'ball', 3.5), 1);
    expect(width(knees, 'knee', 3.5)).toBeLessThan(width(clean, 'knee', 3.5) - 8);
    expect(width(motion(squat, '3-1-2-0', { narrow: 1 }), 'ball', 0)).toBeLessThan(width(clean, 'ball', 0) - 8);
  });

  test('show at the end of the rep they belong to', () => {
    const early = motion(squat, '3-1-2-0', { early: 1 });
    expect(frameAt(early, 0).pose['thorax.flex']).toBeCloseTo(20, 6);
    expect(frameAt(early, 3.5).pose['thorax.flex']).toBeCloseTo(0, 6);
    expect(width(motion(squat, '3-1-2-0', { knees: 1 }), 'knee', 0)).toBeCloseTo(width(motion(squat), 'knee', 0), 3);
  });

  test('can let go of a contact', () => {
    const tiptoe = motion(squat, '3-1-2-0', { tiptoe: 1 });
    expect(frameAt(tiptoe, 3.5).anchors.has('right.foot')).toBe(false);
    expect(frameAt(tiptoe, 3.5).anchors.has('left.foot')).toBe(true);
  });
});

describe('what is written is checked', () => {
  const problem = (written: object) => {
    const checked = checkFigures({ it: { start: ['stand'], ...written } }, POSES);
    return checked.ok ? null : checked.problems[0]?.path;
  };

  test.each<[string, object, string | null]>([
    ['a good figure', { end: ['low'] }, null],
    ['an unknown field', { colour: 'red' }, 'it.colour'],
    ['no start', { start: [] }, 'it.start'],
    ['a posture that is not there', { end: ['lower'] }, 'it.end[0]'],
    ['a posture that is not there on the way', { end: ['low'], via: [['low'], ['x']] }, 'it.via[1][0]'],
    ['an end and a cycle', { end: ['low'], cycle: [['stand']] }, 'it'],
    ['a contact below the floor', { contacts: { feet: -3 } }, 'it.contacts.feet'],
    ['a fault that points nowhere', { faults: { x: { set: {}, mark: 'tail' } } }, 'it.faults.x.mark'],
    ['a load held by nobody', { holds: [{ item: 'dumbbell', in: 'teeth' }] }, 'it.holds[0].in'],
  ])('%s', (_, written, path) => expect(problem(written)).toBe(path));

  test('postures too', () => {
    expect(checkPoses({ stand: { 'hip.flex': 10 } }).ok).toBe(true);
    const wrong = checkPoses({ stand: { 'hip.flex': 'far' } });
    expect(wrong.ok ? null : wrong.problems[0]?.path).toBe('stand.hip.flex');
  });
});

test('paths from above begin and end where the feet stand, and go as far as the step', () => {
  const squat = pathsOf(motion({ start: ['stand'], end: ['low'], contacts: { feet: 0 } }));
  for (const { part, reach } of squat) if (part === 'foot') expect(reach).toBeLessThan(1);
  const step = pathsOf(motion({ start: ['stand'], end: { pose: ['swing'], contacts: { 'right.foot': 0 } } }));
  expect(Math.max(...step.map(({ reach }) => reach))).toBeGreaterThan(10);
  for (const { points } of [...squat, ...step]) {
    const [first, last] = [points[0], points.at(-1)];
    expect(last?.x).toBeCloseTo(first?.x ?? NaN, 1);
    expect(last?.y).toBeCloseTo(first?.y ?? NaN, 1);
  }
  // The right foot is on the right.
  const x = (side: string) => squat.find((path) => path.side === side && path.part === 'foot')?.points[0]?.x ?? 0;
  expect(x('right')).toBeGreaterThan(x('left'));
});
