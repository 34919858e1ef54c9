/**
 * What a figure proves of its movement: the least of each demand that can be seen in it. Where a movement says less, its figure says why.
 * Thresholds are where a level's sentence begins (library/demands.yaml); what cannot be seen, such as a load or a held breath, is not judged.
 */
import { type Demand } from '../movement/vocabulary.js';
import type { Figure, FigureLibrary } from './figure.js';
import { type Frame, frameAt, type Motion, motionOf } from './motion.js';
import { axisX, dot, length, minus, type Vec } from './rotation.js';
import { type BodySide, SIDES_OF_BODY } from './skeleton.js';

export type Proven = Partial<Record<Demand, number>>;

/** Moments of a round that are looked at. */
const MOMENTS = 24;
/** Degrees, or centimetres, from which a level begins. */
const KNEE = [65, 100, 135] as const;
const HIP = [70, 100, 130] as const;
const ARM = [40, 22] as const;
const BEND = [45, 75] as const;
const TWIST = [35, 60] as const;
const ARCH = [20] as const;
const HEAD_LOW_CM = 10;
const CLEAR_CM = 4;
const LOW_TRUNK_CM = 34;
const OVER_FEET_CM = 42;
/** Share of a round in which a posture must be there to be one. */
const OFTEN = 0.3;

const angle = (a: Vec, b: Vec): number =>
  (Math.acos(Math.min(1, Math.max(-1, dot(a, b) / (length(a) * length(b))))) * 180) / Math.PI;

/** How many of the steps a value reaches. */
const levelOf = (value: number, steps: readonly number[]): number => steps.filter((step) => value > step).length;

const trunkOf = ({ body }: Frame): Vec => minus(body.nape, body.root);
const isUpright = (frame: Frame): boolean => trunkOf(frame)[1] > 0.35 * length(trunkOf(frame));

/** Whether somebody is on their feet: these and at most a hand are put down, the trunk is up, and the hips are over the feet. */
function isOnFeet({ body, anchors }: Frame): boolean {
  const feet = SIDES_OF_BODY.filter((side) => anchors.has(`${side}.foot`));
  const others = [...anchors.keys()].filter((contact) => !contact.endsWith('.foot') && !contact.endsWith('.hand'));
  const between = [0, 2].map(
    (axis) => feet.reduce((sum, side) => sum + (body[side].ankle[axis] ?? 0), 0) / feet.length,
  );
  const off = Math.hypot(body.root[0] - (between[0] ?? 0), body.root[2] - (between[1] ?? 0));
  return feet.length > 0 && others.length === 0 && off < OVER_FEET_CM;
}

/** The knee bend of a leg that stands, its foot down and the hips not on the heel. */
function kneeBend(frame: Frame, side: BodySide): number {
  const { root } = frame.body;
  const { hip, knee, ankle, ball } = frame.body[side];
  const stands = frame.anchors.has(`${side}.foot`) && root[1] - ball[1] > 22;
  return stands && isUpright(frame) && isOnFeet(frame) ? angle(minus(knee, hip), minus(ankle, knee)) : 0;
}

const hipBend = (frame: Frame, side: BodySide): number =>
  180 - angle(minus(frame.body[side].knee, frame.body[side].hip), trunkOf(frame));

/**
 * Degrees between an arm, upper arm as well as hand, and the line of the trunk upwards. An arm that something carries counts only where
 * the body hangs from it.
 */
function armRaised(frame: Frame, side: BodySide): number {
  const { shoulder, elbow, wrist } = frame.body[side];
  const rests = frame.anchors.has(`${side}.hand`) && wrist[1] < shoulder[1];
  if (rests || frame.anchors.has(`${side}.forearm`)) return 180;
  const trunk = trunkOf(frame);
  return Math.max(angle(minus(elbow, shoulder), trunk), angle(minus(wrist, shoulder), trunk));
}

const lies = (frame: Frame, faceUp: boolean): boolean => {
  const { root, nape, thorax } = frame.body;
  const front = axisX(thorax)[1];
  const flat = Math.abs(nape[1] - root[1]) < 22 && Math.max(root[1], nape[1]) < LOW_TRUNK_CM;
  const props = SIDES_OF_BODY.some((side) => frame.anchors.has(`${side}.hand`) || frame.anchors.has(`${side}.forearm`));
  return flat && (faceUp ? front > 0.6 : front < -0.6 && !props);
};

const isAirborne = ({ body, anchors }: Frame): boolean =>
  anchors.size === 0 &&
  Math.min(
    ...SIDES_OF_BODY.flatMap((side) => [
      body[side].heel[1],
      body[side].ball[1],
      body[side].toe[1],
      body[side].wrist[1],
    ]),
  ) > CLEAR_CM;

const standsOnOne = (frame: Frame): boolean => {
  const feet = SIDES_OF_BODY.filter((side) => frame.anchors.has(`${side}.foot`));
  const other = feet[0] === 'left' ? 'right' : 'left';
  const { heel, ball, toe } = frame.body[other];
  return (
    feet.length === 1 &&
    [...frame.anchors.keys()].length === 1 &&
    isUpright(frame) &&
    frame.body.root[1] > 50 &&
    Math.min(heel[1], ball[1], toe[1]) > CLEAR_CM
  );
};

/** The least of each demand that a clean motion shows. */
export function provenBy(motion: Motion): Proven {
  const frames = Array.from({ length: MOMENTS }, (_, i) => frameAt(motion, (motion.seconds * i) / MOMENTS));
  const most = (look: (frame: Frame) => number): number => Math.max(...frames.map(look));
  const share = (look: (frame: Frame) => boolean): number => frames.filter(look).length / frames.length;
  const ofSides = (look: (frame: Frame, side: BodySide) => number) => (frame: Frame) =>
    Math.max(...SIDES_OF_BODY.map((side) => look(frame, side)));
  const bend = ({ pose }: Frame): number => pose['lumbar.flex'] + pose['thorax.flex'];
  const raised = (least: number): boolean =>
    share((frame) => SIDES_OF_BODY.some((side) => armRaised(frame, side) < least)) > OFTEN;
  const found: Proven = {
    'deep-knee-bend': levelOf(most(ofSides(kneeBend)), KNEE),
    'hip-bend': levelOf(most(ofSides(hipBend)), HIP),
    overhead: raised(ARM[1]) ? 2 : raised(ARM[0]) ? 1 : 0,
    'spine-bend': levelOf(most(bend), BEND),
    'spine-arch': levelOf(
      most((frame) => -bend(frame)),
      ARCH,
    ),
    'spine-twist': levelOf(
      most(({ pose }) => Math.abs(pose['lumbar.twist'] + pose['thorax.twist'])),
      TWIST,
    ),
    'lying-on-back': share((frame) => lies(frame, true)) > OFTEN ? 1 : 0,
    'lying-face-down': share((frame) => lies(frame, false)) > OFTEN ? 1 : 0,
    'head-below-heart': share(({ body }) => body.chest[1] - body.crown[1] > HEAD_LOW_CM) > 0.1 ? 1 : 0,
    kneeling: share(({ anchors }) => anchors.has('left.knee') || anchors.has('right.knee')) > OFTEN ? 1 : 0,
    'weight-on-wrist':
      share(
        (frame) =>
          !isUpright(frame) &&
          SIDES_OF_BODY.some((side) => frame.anchors.has(`${side}.hand`) && frame.pose[`${side}.wrist.flex`] < -45),
      ) > OFTEN
        ? 1
        : 0,
    impact: share(isAirborne) > 0 ? 1 : 0,
    'single-leg-balance': share(standsOnOne) > OFTEN ? 1 : 0,
    standing: share((frame) => isUpright(frame) && frame.body.root[1] > 60 && isOnFeet(frame)) > 0.5 ? 1 : 0,
  };
  return Object.fromEntries(Object.entries(found).filter(([, level]) => level > 0));
}

/** What is shown is the same at any tempo; without one nothing moves. */
const ANY_DOSE: Parameters<typeof motionOf>[2] = {
  dose: { mode: 'reps', tempo: '2-0-2-0', windows: {} },
  phases: [],
  sides: 'both',
};

const provenOf = (library: FigureLibrary, figure: Figure): Proven => provenBy(motionOf(library, figure, ANY_DOSE));

/** What each figure of a library proves, its reasons not yet heard; some seconds for a whole library. */
export const provenIn = (library: FigureLibrary): Readonly<Record<string, Proven>> =>
  Object.fromEntries(Object.entries(library.figures).map(([id, figure]) => [id, provenOf(library, figure)]));

/** What one figure shows of what is asked; nothing where there is no such figure. */
export function shownIn(library: FigureLibrary, figureId: string): Proven {
  const figure = library.figures[figureId];
  return figure ? askedOf(provenOf(library, figure), figure) : {};
}

/** What is left of what a figure proves when it has said what is not asked. */
export const askedOf = (proven: Proven, { notAsked = {} }: Pick<Figure, 'notAsked'>): Proven =>
  Object.fromEntries(Object.entries(proven).filter(([demand]) => !(demand in notAsked)));

/** A demand of which a movement says less than its figure shows. */
export interface SaysLess {
  demand: Demand;
  said: number;
  seen: number;
}

/** Where a movement's demands fall below what its figure shows, in the order in which it is seen. */
export function saysLess(demands: Proven, seen: Proven): SaysLess[] {
  const less: SaysLess[] = [];
  for (const key in seen) {
    const demand = key as Demand;
    const [said, shown] = [demands[demand] ?? 0, seen[demand] ?? 0];
    if (said < shown) less.push({ demand, said, seen: shown });
  }
  return less;
}
