/** Laws that hold for every figure that ships: what a trainer would laugh at does not pass. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

import { beforeAll, describe, expect, test } from '@jest/globals';
import {
  add,
  assembled,
  baseOf,
  beyond,
  beyondLimits,
  type Body,
  bodyAt,
  BONES,
  centreOfMass,
  distance,
  dot,
  eyeFor,
  eyeOf,
  type FigureLibrary,
  type Frame,
  frameAt,
  handsOf,
  landmarksAt,
  minus,
  type Motion,
  motionOf,
  pointOf,
  PULLS,
  readSkin,
  repSeconds,
  type Skin,
  stagerFor,
  standsOn,
  times,
  turned,
  type Vec,
} from '@waxwing/core/body';
import { bestView } from '@waxwing/core/coaching';
import { type Movement, VIEWS } from '@waxwing/core/movement';

import { putTogether } from './figure-source.js';
import {
  checkFigureFiles,
  figureShortfalls,
  keep,
  LibraryError,
  loadCheckedFigures,
  loadFigures,
  loadLibrary,
  loadProven,
  provenShortfalls,
  stillsIn,
} from './index.js';
import { PROVEN_CHECKED, SKINS, STILLS } from './places.js';
import { madeFrom, stillsHash } from './still-sources.js';

const FOLDER = join(import.meta.dirname, '../figures');
/** Moments of a round that are looked at. */
const MOMENTS = 24;

let library: FigureLibrary;
let drawn: { movement: Movement; clean: Motion }[];
beforeAll(() => {
  library = loadFigures(FOLDER);
  drawn = loadLibrary(join(FOLDER, '../movements')).flatMap((movement) => {
    const figure = library.figures[movement.id];
    return figure ? [{ movement, clean: motionOf(library, figure, movement) }] : [];
  });
});

const moments = (motion: Motion): Frame[] =>
  Array.from({ length: MOMENTS }, (_, i) => frameAt(motion, (motion.seconds * i) / MOMENTS));

/** Every figure clean and with each of its faults in full, and what it is called. */
function* everyMotion(): Generator<[name: string, motion: Motion]> {
  for (const { movement, clean } of drawn) {
    yield [movement.id, clean];
    for (const id of Object.keys(clean.figure.faults))
      yield [`${movement.id}, ${id}`, motionOf(library, clean.figure, movement, { [id]: 1 })];
  }
}

/** How far each part is above the floor, less what it is thick. */
function clearances({ root, nape, headBase, crown, left, right }: Body): [part: string, cm: number][] {
  const head: Vec = [0, (headBase[1] + crown[1]) / 2, 0];
  const middle: [string, Vec, number][] = [
    ['seat', root, 7],
    ['nape', nape, 4],
    ['head', head, 7],
  ];
  const limbs = [left, right].flatMap((limb): [string, Vec, number][] => [
    ['heel', limb.heel, 0],
    ['ball', limb.ball, 0],
    ['toe', limb.toe, 0],
    ['knee', limb.knee, 3.5],
    ['elbow', limb.elbow, 3],
    ['wrist', limb.wrist, 2],
    ['fingertip', limb.fingertip, 0],
  ]);
  return [...middle, ...limbs].map(([part, at, thick]) => [part, at[1] - thick]);
}

/** What is wrong with any moment of any motion, by what it breaks; nothing is what is wanted. Each moment is made once for all of it. */
function wrongsOf(looks: Readonly<Record<string, (frame: Frame) => string>>): Record<string, string[]> {
  const found = Object.fromEntries(Object.keys(looks).map((law) => [law, new Set<string>()]));
  for (const [name, motion] of everyMotion())
    for (const frame of moments(motion))
      for (const [law, look] of Object.entries(looks)) {
        const wrong = look(frame);
        if (wrong) found[law]?.add(`${name}: ${wrong}`);
      }
  return Object.fromEntries(Object.entries(found).map(([law, all]) => [law, [...all]]));
}

/** The solid part of a limb or the trunk: a bar that is round at its ends, in centimetres. */
interface Flesh {
  from: Vec;
  to: Vec;
  radii: readonly [number, number];
}

function fleshOf(body: Body): Flesh[] {
  const beside = (at: Vec, turn: Body['pelvis'], z: number): Vec => add(at, turned(turn, [0, 0, z]));
  const trunk = [-6, 6].map((z): Flesh => ({
    from: beside(body.waist, body.pelvis, z),
    to: beside(body.nape, body.thorax, z * 0.9),
    radii: [8, 7],
  }));
  const limbs = [body.left, body.right].flatMap(({ hip, knee, ankle }): Flesh[] => [
    { from: hip, to: knee, radii: [6.5, 4.5] },
    { from: knee, to: ankle, radii: [4.2, 2.8] },
  ]);
  return [...trunk, ...limbs, { from: body.headBase, to: body.crown, radii: [6, 6] }];
}

/** How deep a place lies in flesh; below nought outside of it. */
function depthIn({ from, to, radii }: Flesh, at: Vec): number {
  const [along, way] = [minus(to, from), minus(at, from)];
  const share = Math.min(1, Math.max(0, dot(along, way) / dot(along, along)));
  return radii[0] + (radii[1] - radii[0]) * share - distance(at, add(from, times(along, share)));
}

const LOWER_ARM = /\.(foreTwist|forearm|wristHalf|hand)$/;

/** The vertices that forearm and hand pull most at. */
function lowerArmOf({ count, bones, weights }: Skin): number[] {
  return Array.from({ length: count }, (_, v) => v).filter((v) => {
    const pulls = Array.from({ length: PULLS }, (_, i) => v * PULLS + i);
    const most = pulls.reduce((best, q) => ((weights[q] ?? 0) > (weights[best] ?? 0) ? q : best));
    return LOWER_ARM.test(BONES[bones[most] ?? 0] ?? '');
  });
}

describe('every figure, clean and with each fault', () => {
  test('keeps its joints within their limits, stays above the floor, and leaves what is planted where it is', () => {
    const laws = wrongsOf({
      limits: ({ pose }) => beyondLimits(pose).join(' '),
      floor: ({ body }) =>
        clearances(body)
          .filter(([, cm]) => cm < -1)
          .map(([part]) => part)
          .join(' '),
      planted: ({ body, anchors }) =>
        [...anchors]
          .filter(([contact, { at }]) => distance(pointOf(body, contact), at) >= 0.5)
          .map(([contact]) => contact)
          .join(' '),
    });
    expect(laws).toEqual({ limits: [], floor: [], planted: [] });
  });

  test('moves without a jump', () => {
    const step = 1 / 20;
    const jumps = drawn.flatMap(({ movement, clean }) => {
      if (clean.figure.cycle) return [];
      const bodies = Array.from({ length: Math.ceil(clean.seconds / step) }, (_, i) => frameAt(clean, i * step).body);
      return bodies.flatMap((body, i) => {
        const next = bodies[i + 1];
        const far = next ? Math.max(distance(body.root, next.root), distance(body.crown, next.crown)) : 0;
        return far > 22 ? [`${movement.id} at ${(i * step).toFixed(2)}: ${far.toFixed(0)} cm`] : [];
      });
    });
    expect(jumps).toEqual([]);
  });
});

describe('somebody who does it', () => {
  test('has their weight over their feet wherever they could stay', () => {
    const falls = drawn.flatMap(({ movement, clean: { figure, keys } }) => {
      if (figure.cycle) return [];
      return [keys[0], figure.end ? keys.at(-1) : undefined].flatMap((key) => {
        const feet = key && standsOn(figure, key.anchors.keys());
        if (!feet) return [];
        const body = bodyAt(key.pose, key.root);
        const out = beyond(baseOf(body, key.pose, feet), centreOfMass(body, figure.holds));
        return out > 1 ? [`${movement.id}: ${out.toFixed(1)} cm`] : [];
      });
    });
    expect(falls).toEqual([]);
  });

  test('moves no joint quicker than a person can', () => {
    const MOST_DEGREES_A_SECOND = 900;
    const step = 1 / 30;
    const joints = (['knee.flex', 'hip.flex', 'elbow.flex', 'shoulder.flex'] as const).flatMap((name) => [
      `left.${name}` as const,
      `right.${name}` as const,
    ]);
    const quick = drawn.flatMap(({ movement, clean }) => {
      const poses = Array.from({ length: Math.ceil(clean.seconds / step) }, (_, i) => frameAt(clean, i * step).pose);
      return poses.flatMap((pose, i) => {
        const next = poses[i + 1];
        return joints
          .filter((joint) => next && Math.abs(next[joint] - pose[joint]) / step > MOST_DEGREES_A_SECOND)
          .map((joint) => `${movement.id}: ${joint}`);
      });
    });
    expect([...new Set(quick)]).toEqual([]);
  });

  test('has no forearm or hand in trunk, head, thigh or shank, measured on the skin', () => {
    const file = readFileSync(SKINS.broad);
    const skinFile = readSkin(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
    const MOMENTS_LOOKED_AT = 6;
    const through = drawn.flatMap(({ movement, clean }) => {
      const skin = assembled(skinFile, { hands: handsOf(clean), hair: 'short' });
      const arm = lowerArmOf(skin);
      const stage = stagerFor(clean, skin);
      const deepest = Array.from({ length: MOMENTS_LOOKED_AT }, (_, i) => {
        const { frame, person } = stage((clean.seconds * i) / MOMENTS_LOOKED_AT);
        const flesh = fleshOf(frame.body);
        return Math.max(
          ...arm.map((v) => {
            const at = [0, 1, 2].map((axis) => person.positions[v * 3 + axis]) as unknown as Vec;
            return Math.max(...flesh.map((one) => depthIn(one, at)));
          }),
        );
      });
      const depth = Math.max(...deepest);
      return depth > 1.5 ? [`${movement.id}: ${depth.toFixed(1)} cm`] : [];
    });
    expect(through).toEqual([]);
  });
});

/** Degrees between two directions. */
const between = (a: Vec, b: Vec): number =>
  (Math.acos(Math.min(1, Math.max(-1, dot(a, b) / (Math.hypot(...a) * Math.hypot(...b))))) * 180) / Math.PI;
const UP: Vec = [0, 1, 0];

describe('what a figure teaches', () => {
  test('forearms stand under shoulders that are lowered over the hands', () => {
    const slanted = drawn.flatMap(({ movement, clean }) => {
      if (clean.figure.joint !== 'elbow' || !/push-up/.test(movement.id) || movement.position !== 'prone') return [];
      const lowest = moments(clean).reduce((a, b) => (a.body.nape[1] < b.body.nape[1] ? a : b));
      const { elbow, wrist } = lowest.body.right;
      const slant = between(minus(elbow, wrist), UP);
      return slant > 20 ? [`${movement.id}: ${slant.toFixed(0)}°`] : [];
    });
    expect(slanted).toEqual([]);
  });

  test('an arm that carries somebody and is not the joint that works is straight', () => {
    const bent = drawn.flatMap(({ movement, clean }) => {
      const carries =
        /^(bird-dog|all-fours|plank-(?!up)|straight-arm|mountain|slow-slider|slider|cat-camel|raised-plank)/;
      if (!carries.test(movement.id)) return [];
      const most = Math.max(
        ...moments(clean).flatMap(({ pose, anchors }) =>
          (['left', 'right'] as const).flatMap((side) =>
            anchors.has(`${side}.hand`) ? [pose[`${side}.elbow.flex`]] : [],
          ),
        ),
      );
      return most > 40 ? [`${movement.id}: ${most.toFixed(0)}°`] : [];
    });
    expect(bent).toEqual([]);
  });

  test('an elbow comes to the knee of the other side', () => {
    const least = (movementId: string, other: boolean): number => {
      const one = drawn.find(({ movement }) => movement.id === movementId);
      if (!one) throw new Error(`${movementId} is not drawn`);
      return Math.min(
        ...moments(one.clean).flatMap(({ body: { left, right } }) =>
          other
            ? [distance(left.elbow, right.knee), distance(right.elbow, left.knee)]
            : [distance(left.elbow, left.knee), distance(right.elbow, right.knee)],
        ),
      );
    };
    for (const id of ['bicycle-curl-up', 'standing-elbow-to-knee'])
      expect(least(id, true)).toBeLessThan(least(id, false) - 10);
  });

  test('what slides stays on the floor', () => {
    const gliding = drawn.filter(({ clean }) => clean.figure.glides.length > 0);
    expect(gliding.length).toBeGreaterThan(2);
    const lifted = gliding.flatMap(({ movement, clean }) => {
      const sides = (['left', 'right'] as const).filter((side) =>
        clean.figure.glides.some((one) => one === 'feet' || one === `${side}.foot`),
      );
      const highest = Math.max(
        0,
        ...moments(clean).flatMap(({ body }) =>
          sides.map((side) => Math.min(body[side].heel[1], body[side].ball[1], body[side].toe[1])),
        ),
      );
      return highest > 2 ? [`${movement.id}: ${highest.toFixed(1)} cm`] : [];
    });
    expect(lifted).toEqual([]);
  });

  test('a hand that is held at a place is there, and a chair to hold on to is held', () => {
    const away = drawn.flatMap(({ movement, clean }) => {
      const frames = moments(clean);
      const off = frames.flatMap(({ anchors, body }) =>
        (['left', 'right'] as const).map((side) => {
          const anchor = anchors.get(`${side}.hand`);
          return anchor ? distance(anchor.at, body[side].wrist) : 0;
        }),
      );
      // Whose hips are near a chair sits on it; everybody else stands at its back.
      const backs = clean.figure.props.flatMap(({ item, at, height }) =>
        item === 'chair' &&
        typeof at !== 'string' &&
        frames.every(({ body }) => Math.abs(body.root[0] - at[0]) + Math.abs(body.root[2] - at[2]) > 35)
          ? [[at[0] - 24.5, height + 47, at[2]] as const]
          : [],
      );
      const reach = backs.flatMap(([x, y, z]) =>
        frames.map(({ body }) =>
          Math.min(
            ...[body.left.wrist, body.right.wrist].map((wrist) =>
              Math.hypot(wrist[0] - x, wrist[1] - y, Math.max(0, Math.abs(wrist[2] - z) - 19)),
            ),
          ),
        ),
      );
      return [
        ...(Math.max(...off) > 1 ? [`${movement.id}: ${Math.max(...off).toFixed(1)} cm off`] : []),
        ...(Math.max(0, ...reach) > 6 ? [`${movement.id}: ${Math.max(...reach).toFixed(0)} cm from the chair`] : []),
      ];
    });
    expect(away).toEqual([]);
  });

  test('nobody who lies is looked at from between the feet', () => {
    const lying = drawn.filter(({ movement }) => ['supine', 'prone', 'side-lying'].includes(movement.position));
    const low = lying.flatMap(({ movement, clean }) => {
      const { root, nape } = frameAt(clean, 0).body;
      const up = minus(nape, root);
      return VIEWS.filter((view) => {
        const eye = eyeFor(view, movement.position);
        return eye.raised < 60 && dot(eyeOf(eye).back, up) / Math.hypot(...up) < -0.35;
      }).map((view) => `${movement.id} ${view}`);
    });
    expect(low).toEqual([]);
  });
});

describe('a fault', () => {
  test('of no amount is the clean rep', () => {
    for (const { movement, clean } of drawn) {
      const none = Object.fromEntries(Object.keys(clean.figure.faults).map((id) => [id, 0]));
      const still = motionOf(library, clean.figure, movement, none);
      for (let i = 0; i < 5; i += 1) {
        const seconds = (clean.seconds * i) / 5;
        expect(frameAt(still, seconds).body).toEqual(frameAt(clean, seconds).body);
      }
    }
  });

  test('is seen: from the side that shows it best some point is three centimetres off the clean rep', () => {
    const unseen = drawn.flatMap(({ movement, clean }) =>
      movement.faults
        .filter(({ id }) => id in clean.figure.faults)
        .filter((fault) => {
          const faulty = motionOf(library, clean.figure, movement, { [fault.id]: 1 });
          const view = bestView(fault);
          return !Array.from({ length: 12 }, (_, i) => (clean.seconds * i) / 12).some((seconds) => {
            const [a, b] = [landmarksAt(clean, seconds, view), landmarksAt(faulty, seconds, view)];
            return Object.entries(a).some(([name, { spot }]) => {
              const other = b[name as keyof typeof b].spot;
              return Math.hypot(spot.x - other.x, spot.y - other.y) > 3;
            });
          });
        })
        .map(({ id }) => `${movement.id}, ${id}`),
    );
    expect(unseen).toEqual([]);
  });

  test('grows with its amount and several can be mixed', () => {
    const { movement, clean } = drawn.find((one) => one.movement.id === 'goblet-squat') ?? {};
    if (!movement || !clean) throw new Error('no goblet squat');
    const bottom = repSeconds(movement.dose.tempo, 'lower')[0] + 0.1;
    const knees = (faults: Record<string, number>) => {
      const { left, right } = frameAt(motionOf(library, clean.figure, movement, faults), bottom).body;
      return [distance(left.knee, right.knee), left.heel[1]] as const;
    };
    const widths = [0, 0.3, 0.6, 1].map((amount) => knees({ 'knees-in': amount })[0]);
    expect(widths).toEqual(widths.toSorted((a, b) => b - a));
    const both = knees({ 'knees-in': 1, 'heels-lift': 1 });
    expect(both[0]).toBeLessThan((widths[0] ?? 0) - 10);
    expect(both[1]).toBeGreaterThan(4);
  });
});

describe('time', () => {
  test('a rep lasts as long as the tempo says, and a squat is lowest when it is said to be', () => {
    for (const { movement, clean } of drawn) {
      if (!clean.figure.end) continue;
      const parts = repSeconds(movement.dose.tempo, clean.figure.first);
      expect(clean.seconds).toBeCloseTo(
        parts.reduce((sum, one) => sum + one, 0),
        9,
      );
    }
    const { clean } = drawn.find((one) => one.movement.id === 'bodyweight-squat') ?? {};
    if (!clean) throw new Error('no squat');
    const lowest = moments(clean).reduce((low, frame) => (frame.body.root[1] < low.body.root[1] ? frame : low));
    expect(['lower', 'bottom', 'rise']).toContain(lowest.phase);
    expect(lowest.body.root[1]).toBeLessThan((moments(clean)[0]?.body.root[1] ?? 0) - 25);
  });

  test('a round that travels ends a stride further on, in the posture in which it began', () => {
    const { clean } = drawn.find((one) => one.movement.id === 'walking-lunge') ?? {};
    if (!clean) throw new Error('no walking lunge');
    expect(clean.travel[0]).toBeGreaterThan(60);
    const start = frameAt(clean, 0);
    const end = frameAt(clean, clean.seconds - 1e-6);
    expect(end.body.root[0] - start.body.root[0]).toBeCloseTo(clean.travel[0], 0);
    expect(end.body.root[1]).toBeCloseTo(start.body.root[1], 1);
  });
});

describe('the files', () => {
  test('are read from their checked form while they are the same, and checked again when they are not', () => {
    const folder = mkdtempSync(join(tmpdir(), 'waxwing-figures-'));
    try {
      cpSync(FOLDER, join(folder, 'figures'), { recursive: true });
      const kept = join(folder, 'kept.json');
      keep(join(folder, 'figures'), kept, checkFigureFiles);
      expect(loadCheckedFigures(join(folder, 'figures'), kept)).toEqual(library);
      writeFileSync(kept, readFileSync(kept, 'utf8').replace('"goblet-squat"', '"gobbled-squat"'));
      expect(loadCheckedFigures(join(folder, 'figures'), kept).figures).toHaveProperty('gobbled-squat');
      writeFileSync(join(folder, 'figures/poses.yaml'), 'stand: { tail: 4 }');
      expect(() => loadCheckedFigures(join(folder, 'figures'), kept)).toThrow('poses.yaml: stand.tail');
    } finally {
      rmSync(folder, { recursive: true });
    }
  });

  test('have a still each, made from the figures, the skin and the drawing as they are now', () => {
    expect(readFileSync(madeFrom(STILLS), 'utf8').trim()).toBe(stillsHash());
    const { of: still, ids, started } = stillsIn(STILLS);
    expect(started).toEqual(drawn.flatMap(({ movement, clean }) => (clean.figure.end ? movement.id : [])).toSorted());
    for (const id of started) expect(still(id, 'start')).not.toBe(still(id));
    expect(ids).toEqual(drawn.map(({ movement }) => movement.id).toSorted());
    for (const { movement } of drawn)
      expect([movement.id, still(movement.id)?.startsWith('<svg ')]).toEqual([movement.id, true]);
    for (const id of ['none', '../movements', 'a/b']) expect(still(id)).toBeUndefined();
  });

  test('draw every movement of the library with two faults each, and little else travels to the page', () => {
    expect(figureShortfalls(library, loadLibrary(join(FOLDER, '../movements')))).toEqual([]);
    expect(drawn.length).toBeGreaterThanOrEqual(330);
    expect(gzipSync(JSON.stringify(library)).length).toBeLessThan(150 * 1024);
  });

  test('prove what their movements ask for: who says less is named, and so is a reason for nothing', () => {
    const proven = loadProven(FOLDER, PROVEN_CHECKED);
    const movements = loadLibrary(join(FOLDER, '../movements'));
    expect(provenShortfalls(library, proven, movements)).toEqual([]);
    const told = (id: string, demands: Movement['demands']) =>
      provenShortfalls(
        library,
        proven,
        movements.filter((one) => one.id === id).map((one) => ({ ...one, demands: { ...one.demands, ...demands } })),
      ).map(({ file, path }) => `${file} ${path}`);
    // A deep squat with little knee bend, a hang with the arms down, hands and knees on nothing, a jump that never leaves the floor.
    expect(told('goblet-squat', { 'deep-knee-bend': 1 })).toEqual(['goblet-squat demands.deep-knee-bend']);
    expect(told('dead-hang', { overhead: 1 })).toEqual(['dead-hang demands.overhead']);
    expect(told('bird-dog', { kneeling: 0, 'weight-on-wrist': 0 }).toSorted()).toEqual([
      'bird-dog demands.kneeling',
      'bird-dog demands.weight-on-wrist',
    ]);
    expect(told('squat-jump', { impact: 0 })).toEqual(['squat-jump demands.impact']);
    expect(told('glute-bridge', { 'lying-on-back': 0 })).toEqual(['glute-bridge demands.lying-on-back']);
    expect(told('step-down', { 'single-leg-balance': 0 })).toEqual(['step-down demands.single-leg-balance']);
    // More than can be seen is nobody's fault; a reason that is not needed is.
    expect(told('goblet-squat', { 'deep-knee-bend': 3 })).toEqual([]);
    expect(told('clam', { overhead: 3 })).toEqual(['clam notAsked.overhead']);
  });

  test.each<[string, string, (text: string) => string, string]>([
    [
      'an angle of no body',
      'squat.yaml',
      (text) => text.replace('knee.flex: -56', 'tail.flex: -56'),
      'squat.yaml: bodyweight-squat.faults.cut-short.set',
    ],
    [
      'a posture that is not there',
      'squat.yaml',
      (text) => text.replace('[squat, reach]', '[sqat, reach]'),
      'squat.yaml: bodyweight-squat.end[0] no posture "sqat"',
    ],
    [
      'an unknown field',
      'arms.yaml',
      (text) => text.replace('joint: elbow', 'hinge: elbow'),
      'arms.yaml: standing-curl.hinge is not a known field',
    ],
    [
      'a contact of no body',
      'floor.yaml',
      (text) => text.replace('base: [back]', 'base: [tail]'),
      'floor.yaml: glute-bridge.base[0] must be one of',
    ],
    ['no YAML', 'legs.yaml', (text) => `${text}\n  - [`, 'legs.yaml: is not valid YAML'],
    [
      'a posture out of bounds',
      'poses.yaml',
      (text) => text.replace('hip.flex: 122', 'hip.flex: 1220'),
      'poses.yaml: squat.hip.flex',
    ],
  ])('%s is refused by file and path', (_, file, spoil, said) => {
    const folder = mkdtempSync(join(tmpdir(), 'waxwing-figures-'));
    try {
      cpSync(FOLDER, folder, { recursive: true });
      writeFileSync(join(folder, file), spoil(readFileSync(join(folder, file), 'utf8')));
      expect(() => loadFigures(folder)).toThrow(LibraryError);
      expect(() => loadFigures(folder)).toThrow(said);
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});

describe('a figure that is written like another one', () => {
  const shared = { caves: { set: { 'hip.out': -20 }, mark: 'knees' } };
  const read = (written: Record<string, unknown>) =>
    putTogether(new Map(Object.entries(written).map(([id, fields]) => [id, { file: 'f.yaml', fields }])), shared);
  const said = (written: Record<string, unknown>) =>
    read(written).problems.map(({ path, message }) => `${path}: ${message}`);

  test('has the fields of the other, its own before them, and no fault of the other', () => {
    const { figures, problems } = read({
      squat: { start: ['low'], end: ['high'], props: [1], faults: { a: 'caves' } },
      pulse: { like: 'squat', end: ['lower'], props: null, faults: { b: { as: 'caves', at: 'start' } } },
      round: { like: 'pulse', cycle: [['x']] },
    });
    expect(problems).toEqual([]);
    expect(figures.get('squat')?.fields).toMatchObject({ faults: { a: shared.caves } });
    expect(figures.get('pulse')?.fields).toEqual({
      start: ['low'],
      end: ['lower'],
      faults: { b: { ...shared.caves, at: 'start' } },
    });
    // A round has no end.
    expect(figures.get('round')?.fields).toEqual({ start: ['low'], cycle: [['x']] });
  });

  test('names what is not there, and does not run in a circle', () => {
    expect(said({ a: { like: 'none' } })).toEqual(['a.like: no figure "none"']);
    expect(said({ a: { faults: { x: 'nothing' } } })).toEqual(['a.faults.x: no shared fault "nothing"']);
    expect(said({ a: { like: 'b' }, b: { like: 'a' } })).not.toEqual([]);
  });
});
