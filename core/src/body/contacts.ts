/**
 * What holds the body to the room: feet, hands, knees, forearms, seat, back, belly, side.
 * The root is moved so that the contacts that carry it stay put; the limbs of the others are bent to reach theirs.
 */
import { BALL_FROM_ANKLE, type Body, bodyAt, legOf, LENGTH, type Limbs, outward, pelvisOf } from './kinematics.js';
import {
  aboutZ,
  add,
  after,
  asYZX,
  asZXY,
  axisX,
  axisZ,
  cross,
  degrees,
  distance,
  dot,
  frameOf,
  inverse,
  length,
  minus,
  times,
  type Turn,
  turned,
  unit,
  UP,
  type Vec,
} from './rotation.js';
import { type Angle, type BodySide, LIMITS, type Pose, SIDES_OF_BODY } from './skeleton.js';

export const LIMB_CONTACTS = ['foot', 'hand', 'knee', 'forearm'] as const;
export const TRUNK_CONTACTS = ['seat', 'back', 'belly', 'side'] as const;
export type LimbContact = `${BodySide}.${(typeof LIMB_CONTACTS)[number]}`;
export type Contact = LimbContact | (typeof TRUNK_CONTACTS)[number];

export const CONTACTS: readonly Contact[] = [
  ...SIDES_OF_BODY.flatMap((side) => LIMB_CONTACTS.map((limb): Contact => `${side}.${limb}`)),
  ...TRUNK_CONTACTS,
];

/** How far the skin is from the joint that touches, in centimetres. */
export const SKIN = { knee: 5, forearm: 4, hand: 3, seat: 10, back: 11, belly: 9, side: 20 } as const;

/** Where a contact is held. */
export interface Anchor {
  at: Vec;
  /** A foot or hand: how it lies. */
  lies?: Turn;
  /** A knee or forearm: where the ankle or wrist of the limb lies. */
  end?: Vec;
}

export type Anchors = ReadonlyMap<Contact, Anchor>;

const TRUNK_POINT: Readonly<Record<(typeof TRUNK_CONTACTS)[number], (body: Body) => Vec>> = {
  seat: ({ root }) => root,
  back: ({ nape, thorax }) => add(nape, turned(thorax, [0, -LENGTH.thorax / 2, 0])),
  belly: ({ waist }) => waist,
  side: ({ root }) => root,
};

interface LimbHold {
  side: BodySide;
  limb: (typeof LIMB_CONTACTS)[number];
}

const LIMB_HOLDS: ReadonlyMap<Contact, LimbHold> = new Map(
  SIDES_OF_BODY.flatMap((side) =>
    LIMB_CONTACTS.map((limb): [Contact, LimbHold] => [`${side}.${limb}`, { side, limb }]),
  ),
);

/** A contact as side and limb; undefined for one of the trunk. */
const limbOf = (contact: Contact): LimbHold | undefined => LIMB_HOLDS.get(contact);

const HOLDS = { foot: 'ball', hand: 'wrist', knee: 'knee', forearm: 'elbow' } as const;

/** The joint that a contact holds. */
export function pointOf(body: Body, contact: Contact): Vec {
  const limb = limbOf(contact);
  if (!limb) return TRUNK_POINT[contact as (typeof TRUNK_CONTACTS)[number]](body);
  return body[limb.side][HOLDS[limb.limb]];
}

/** Height of the joint above what it rests on. */
const skinOf = (contact: Contact): number => {
  const limb = limbOf(contact);
  if (limb) return limb.limb === 'foot' ? 0 : SKIN[limb.limb];
  return SKIN[contact as (typeof TRUNK_CONTACTS)[number]];
};

const flat = (v: Vec): Vec => [v[0], 0, v[2]];

/** A foot flat on the floor, pointing where the leg above it bends to. */
function flatFoot({ shank }: Pick<Limbs, 'shank'>): Turn {
  const x = unit(flat(cross(UP, axisZ(shank))), [1, 0, 0]);
  return frameOf(x, UP, cross(x, UP));
}

/** A palm flat on the floor: fingers towards the head of somebody face down, else to the front. */
function flatHand(body: Body, side: BodySide): Turn {
  const ahead = flat(minus(body.nape, body.root));
  const fingers = unit(length(ahead) > 15 && axisX(body.thorax)[1] < 0.3 ? ahead : flat(axisX(body.pelvis)), [1, 0, 0]);
  const z: Vec = [0, outward(side), 0];
  const y = times(fingers, -1);
  return frameOf(cross(y, z), y, z);
}

/** A height: rests there, flat; a place: is held there as it is; `fixed`: stays where and how it is, as on a wall, a bar or a strap. */
export type Hold = number | Vec | 'fixed';

/** Where a contact is held from a body that stands as it shall. */
export function anchorFor(body: Body, contact: Contact, hold: Hold): Anchor {
  const point = pointOf(body, contact);
  const at: Vec =
    typeof hold === 'number' ? [point[0], hold + skinOf(contact), point[2]] : hold === 'fixed' ? point : hold;
  const limb = limbOf(contact);
  if (!limb) return { at };
  const part = body[limb.side];
  switch (limb.limb) {
    case 'foot':
      return { at, lies: typeof hold === 'number' ? flatFoot(part) : part.foot };
    case 'hand':
      return { at, lies: typeof hold === 'number' ? flatHand(body, limb.side) : part.hand };
    case 'knee':
      return { at, end: add(at, lying(part.knee, part.ankle, LENGTH.shank, hold)) };
    case 'forearm':
      return { at, end: add(at, lying(part.elbow, part.wrist, LENGTH.forearm, hold)) };
  }
}

const lying = (from: Vec, to: Vec, long: number, hold: Hold): Vec =>
  typeof hold === 'number' ? times(unit(flat(minus(to, from)), [1, 0, 0]), long) : minus(to, from);

type Change = Partial<Record<Angle, number>>;

/** Angles no further than their joints go. */
const within = (change: Change): Change =>
  Object.fromEntries(
    (Object.entries(change) as [Angle, number][]).map(([angle, value]) => [
      angle,
      Math.min(LIMITS[angle][1], Math.max(LIMITS[angle][0], value)),
    ]),
  );

/** Bends a ball joint so that its segment is turned like `segment`. */
function ballAngles(base: Turn, segment: Turn, side: BodySide, joint: 'hip' | 'shoulder'): Change {
  const out = outward(side);
  const { z, x, y } = asZXY(after(inverse(base), segment));
  return { [`${side}.${joint}.flex`]: z, [`${side}.${joint}.out`]: -out * x, [`${side}.${joint}.turn`]: out * y };
}

/**
 * The two bones of a limb reach from `start` to `end` (law of cosines); where both bones are stretched and still too short, they point there.
 * @param bulge where the middle joint points now
 * @param forward whether the middle joint points to the front of the limb (a knee) or to its back (an elbow)
 */
function twoBones(
  start: Vec,
  end: Vec,
  upper: number,
  lower: number,
  bulge: Vec,
  forward: boolean,
): { segment: Turn; bend: number } {
  const reach = Math.min(Math.max(distance(start, end), Math.abs(upper - lower) + 1e-6), upper + lower - 1e-6);
  const line = unit(minus(end, start), [0, -1, 0]);
  const aside = unit(minus(bulge, times(line, dot(bulge, line))), [1, 0, 0]);
  const cosine = (upper * upper + reach * reach - lower * lower) / (2 * upper * reach);
  const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
  const bone = add(times(line, cosine), times(aside, sine));
  const bend = 180 - degrees(Math.acos((upper * upper + lower * lower - reach * reach) / (2 * upper * lower)));
  const y = times(bone, -1);
  const front = unit(minus(aside, times(bone, dot(aside, bone))), [1, 0, 0]);
  const x = forward ? front : times(front, -1);
  return { segment: frameOf(x, y, cross(x, y)), bend };
}

function reachFoot(body: Body, pose: Pose, side: BodySide, { at, lies }: Anchor): Change {
  const lift = pose[`${side}.heel.lift`];
  const foot = after(lies ?? body[side].foot, aboutZ(-lift));
  return { ...ankleTo(body, side, minus(at, turned(foot, BALL_FROM_ANKLE)), foot), [`${side}.toes.up`]: lift };
}

/** Bends the leg so that its ankle comes to a place with the foot turned so. */
function ankleTo(body: Body, side: BodySide, target: Vec, foot: Turn): Change {
  const { hip, knee, thigh } = body[side];
  const bulge = add(minus(knee, hip), times(axisX(thigh), LENGTH.thigh / 2));
  const { segment, bend } = twoBones(hip, target, LENGTH.thigh, LENGTH.shank, bulge, true);
  const shank = after(segment, aboutZ(-bend));
  return {
    ...ballAngles(body.pelvis, segment, side, 'hip'),
    [`${side}.knee.flex`]: bend,
    ...ankleAngles(shank, foot, side),
  };
}

function reachHand(body: Body, side: BodySide, { at, lies }: Anchor, nudge: Vec = [0, 0, 0]): Change {
  const out = outward(side);
  const { shoulder, elbow, upperArm, hand } = body[side];
  const bulge = add(add(minus(elbow, shoulder), times(axisX(upperArm), -LENGTH.upperArm / 2)), nudge);
  const { segment, bend } = twoBones(shoulder, at, LENGTH.upperArm, LENGTH.forearm, bulge, false);
  const forearm = after(segment, aboutZ(bend));
  // The hand as a turn of the forearm about its length, then to the thumb's side, then towards the palm.
  const { y, z, x } = asYZX(after(inverse(forearm), lies ?? hand));
  return {
    ...ballAngles(body.thorax, segment, side, 'shoulder'),
    [`${side}.elbow.flex`]: bend,
    // A wrist that can bend no further lifts the palm; the wrist itself stays where it is held.
    ...within({
      [`${side}.forearm.turn`]: out * y,
      [`${side}.wrist.tilt`]: z,
      [`${side}.wrist.flex`]: out * x,
    }),
  };
}

/** Points a bone at its anchor, and the next one along the floor. */
function reachOneBone(body: Body, side: BodySide, limb: 'knee' | 'forearm', { at, end }: Anchor): Change {
  const leg = limb === 'knee';
  const { hip, shoulder, thigh, upperArm } = body[side];
  const bone = unit(minus(at, leg ? hip : shoulder), [0, -1, 0]);
  const y = times(bone, -1);
  const along = end ? minus(end, at) : [1, 0, 0];
  // The next bone lies in the plane in which this joint bends.
  const front = times(along as Vec, leg ? -1 : 1);
  const was = axisX(leg ? thigh : upperArm);
  const x = unit(minus(front, times(bone, dot(front, bone))), was);
  const segment = frameOf(x, y, cross(x, y));
  const inFrame = turned(inverse(segment), unit(along as Vec));
  const bend = degrees(Math.atan2(leg ? -inFrame[0] : inFrame[0], -inFrame[1]));
  return leg
    ? { ...ballAngles(body.pelvis, segment, side, 'hip'), [`${side}.knee.flex`]: bend }
    : { ...ballAngles(body.thorax, segment, side, 'shoulder'), [`${side}.elbow.flex`]: bend };
}

/** Turns the ankles so that planted feet lie as they shall, heels lifted as far as the posture says. */
export function levelled(pose: Pose, lies: ReadonlyMap<BodySide, Turn | undefined>): Pose {
  const change: Change = {};
  const pelvis = pelvisOf(pose);
  for (const [side, how] of lies) {
    const leg = legOf(pose, side, ORIGIN, pelvis);
    const lift = pose[`${side}.heel.lift`];
    const foot = after(how ?? flatFoot(leg), aboutZ(-lift));
    Object.assign(change, ankleAngles(leg.shank, foot, side), { [`${side}.toes.up`]: lift });
  }
  return { ...pose, ...change };
}

const ORIGIN: Vec = [0, 0, 0];

const ankleAngles = (shank: Turn, foot: Turn, side: BodySide): Change => {
  const { y, z, x } = asYZX(after(inverse(shank), foot));
  return {
    [`${side}.ankle.turn`]: outward(side) * y,
    [`${side}.ankle.flex`]: z,
    [`${side}.ankle.tilt`]: outward(side) * x,
  };
};

/** How far the body, already moved `by`, must move further for a stretched leg or arm to reach its anchor; nothing where it reaches. */
function shortBy(body: Body, by: Vec, pose: Pose, contact: Contact, { at, lies }: Anchor): Vec {
  const limb = limbOf(contact);
  if (limb?.limb !== 'foot' && limb?.limb !== 'hand') return [0, 0, 0];
  const { side } = limb;
  const leg = limb.limb === 'foot';
  const foot = after(lies ?? body[side].foot, aboutZ(-pose[`${side}.heel.lift`]));
  const start = add(by, leg ? body[side].hip : body[side].shoulder);
  const way = minus(leg ? minus(at, turned(foot, BALL_FROM_ANKLE)) : at, start);
  const most = (leg ? LENGTH.thigh + LENGTH.shank : LENGTH.upperArm + LENGTH.forearm) - STRETCH_CM;
  return times(unit(way), Math.max(0, length(way) - most));
}

/** A limb is never drawn quite straight: that would make its joint jump to and fro. */
const STRETCH_CM = 0.02;

/** Rounds in which root and limbs settle at most; most postures need one and a look whether it did. */
const ROUNDS = 5;
/** How near everything must be to be settled. */
const SETTLED_CM = 0.02;

export interface Held {
  pose: Pose;
  body: Body;
}

/**
 * The body held by its contacts.
 * @param base contacts that carry the root; without any among the anchors it stays at `from`
 */
export function hold(pose: Pose, anchors: Anchors, base: readonly Contact[], from: Vec = [0, 0, 0]): Held {
  let root = from;
  const feet = SIDES_OF_BODY.flatMap((side): [BodySide, Turn | undefined][] => {
    const anchor = anchors.get(`${side}.foot`);
    return anchor ? [[side, anchor.lies]] : [];
  });
  let now = levelled(pose, new Map(feet));
  let body = bodyAt(now, root);
  for (let round = 0; round < ROUNDS; round += 1) {
    const moved = giving(body, now, anchors, base);
    if (distance(moved, root) > 1e-6) {
      root = moved;
      body = bodyAt(now, root);
    }
    const change: Change = {};
    for (const [contact, anchor] of anchors) {
      const limb = limbOf(contact);
      if (!limb) continue;
      if (limb.limb === 'foot') Object.assign(change, reachFoot(body, now, limb.side, anchor));
      else if (limb.limb === 'hand') Object.assign(change, reachHand(body, limb.side, anchor));
      else Object.assign(change, reachOneBone(body, limb.side, limb.limb, anchor));
    }
    now = { ...now, ...change };
    body = bodyAt(now, root);
    if (isSettled(body, anchors)) break;
  }
  return liftFree({ pose: now, body }, anchors);
}

/** Where the root must be for the base to stay put, and for stretched limbs to reach: where they are too short, the body gives. */
function giving(body: Body, pose: Pose, anchors: Anchors, base: readonly Contact[]): Vec {
  let by: Vec = [0, 0, 0];
  let carried = 0;
  for (const contact of base) {
    const anchor = anchors.get(contact);
    if (!anchor) continue;
    by = add(by, minus(anchor.at, pointOf(body, contact)));
    carried += 1;
  }
  by = times(by, 1 / Math.max(1, carried));
  for (const [contact, anchor] of anchors)
    if (!base.includes(contact)) by = add(by, shortBy(body, by, pose, contact, anchor));
  return add(body.root, by);
}

function isSettled(body: Body, anchors: Anchors): boolean {
  for (const [contact, { at }] of anchors) if (distance(pointOf(body, contact), at) > SETTLED_CM) return false;
  return true;
}

/** How far below a wrist the floor must be. */
const WRIST_ABOVE_CM = 3;

/** A foot or hand that is on its way does not go through the floor. */
function liftFree({ pose, body }: Held, anchors: Anchors): Held {
  const change: Change = {};
  for (const side of SIDES_OF_BODY) {
    const { heel, ball, toe, ankle, foot, wrist, fingertip, elbow } = body[side];
    if (!anchors.has(`${side}.foot`) && !anchors.has(`${side}.knee`)) {
      const under = Math.min(heel[1], ball[1], toe[1]);
      if (under < 0) Object.assign(change, ankleTo(body, side, add(ankle, [0, -under, 0]), foot));
    }
    if (anchors.has(`${side}.hand`) || anchors.has(`${side}.forearm`)) continue;
    if (Math.min(wrist[1] - WRIST_ABOVE_CM, elbow[1] - WRIST_ABOVE_CM, fingertip[1]) >= 0) continue;
    const at: Vec = [wrist[0], Math.max(wrist[1], WRIST_ABOVE_CM), wrist[2]];
    // The elbow comes up out of the floor, not down into it.
    Object.assign(change, reachHand(body, side, { at, lies: flatHand(body, side) }, [0, LENGTH.upperArm, 0]));
  }
  if (Object.keys(change).length === 0) return { pose, body };
  const lifted = { ...pose, ...change };
  return { pose: lifted, body: bodyAt(lifted, body.root) };
}
