/** What can be measured of a body on a picture, each with the views from which it can. */
import { SIDES_OF_BODY } from '../body/skeleton.js';
import { type Quantity, REP_QUANTITIES, type View } from '../movement/vocabulary.js';
import { degrees, type Moment, shorter } from './frame.js';

/** Quantities by which reps can be told, those first that lie in the picture from anywhere. */
export const LEADS = [
  'hip-height',
  'hand-height',
  'knee-bend',
  'hip-bend',
  'elbow-bend',
  'arm-raise',
  'trunk-lean',
] as const satisfies Quantity[];
export type Lead = (typeof LEADS)[number];

export type RepQuantity = (typeof REP_QUANTITIES)[number];
export type MomentQuantity = Exclude<Quantity, RepQuantity>;
export type Unit = '°' | 'cm' | '%';

export const isOfRep = (of: Quantity): of is RepQuantity => (REP_QUANTITIES as readonly string[]).includes(of);

interface Measured {
  unit: Unit;
  /** Where it lies in the picture, and not along the line of sight. */
  views: readonly View[];
  of: (moment: Moment) => number;
}

const ALL: readonly View[] = ['front', 'side', 'back', 'oblique'];
const FACING: readonly View[] = ['front', 'back'];
const ASIDE: readonly View[] = ['side'];
/** Bends lie along the line of sight from here: heights tell more. */
const UNFORESHORTENED: readonly View[] = ['front', 'back', 'oblique'];

/** Of the two sides the one that is further along; the nearer one alone from the side. */
const most = (moment: Moment, of: (side: 'left' | 'right') => number): number => {
  if (moment.stand.view === 'side') return of(moment.stand.near);
  const [a, b] = SIDES_OF_BODY.map(of) as [number, number];
  return Number.isNaN(a) ? b : Number.isNaN(b) ? a : Math.max(a, b);
};

const lowest = (m: Moment): number => -most(m, (side) => -m.spot(`${side}.ankle`)[1]);

const LEAST_LEG_CM = 30;

/** 1 where the person's left lies to the right of the picture. */
const leftWay = ({ stand }: Moment): 1 | -1 => (stand.view === 'back' ? -1 : 1);

const ANGLE = (dx: number, dy: number): number => degrees(Math.atan2(dx, dy));

export const MEASURED: Readonly<Record<MomentQuantity, Measured>> = {
  'knee-bend': {
    unit: '°',
    views: ALL,
    of: (m) => most(m, (side) => m.bend(`${side}.hip`, `${side}.knee`, `${side}.ankle`, false)),
  },
  'hip-bend': {
    unit: '°',
    views: ALL,
    of: (m) => most(m, (side) => m.bend(`${side}.shoulder`, `${side}.hip`, `${side}.knee`, true)),
  },
  'elbow-bend': {
    unit: '°',
    views: ALL,
    of: (m) => most(m, (side) => m.bend(`${side}.shoulder`, `${side}.elbow`, `${side}.wrist`, true)),
  },
  /** Of the upper arm from along the trunk to overhead; from the side less than nought behind the body. */
  'arm-raise': {
    unit: '°',
    views: ALL,
    of: (m) =>
      most(m, (side) => {
        const bend = m.bend(`${side}.hip`, `${side}.shoulder`, `${side}.elbow`, false);
        return m.stand.view === 'side' ? ((180 - bend + 450) % 360) - 90 : 180 - bend;
      }),
  },
  /** Of the trunk from upright, forward. */
  'trunk-lean': {
    unit: '°',
    views: ASIDE,
    of: (m) => {
      const [hip, shoulder] = [m.middle('hip'), m.middle('shoulder')];
      return ANGLE(shoulder[0] - hip[0], shoulder[1] - hip[1]);
    },
  },
  /** Of the middle of the hips over the lower foot. */
  'hip-height': { unit: 'cm', views: UNFORESHORTENED, of: (m) => m.middle('hip')[1] - lowest(m) },
  /** Of the higher hand over the lower foot. */
  'hand-height': {
    unit: 'cm',
    views: UNFORESHORTENED,
    of: (m) => most(m, (side) => m.spot(`${side}.wrist`)[1]) - lowest(m),
  },
  /** Of the trunk from upright, to either side. */
  'trunk-aside': {
    unit: '°',
    views: FACING,
    of: (m) => {
      const [hip, shoulder] = [m.middle('hip'), m.middle('shoulder')];
      return Math.abs(ANGLE(shoulder[0] - hip[0], shoulder[1] - hip[1]));
    },
  },
  /** How far the hips hang below the line from shoulder to ankle. */
  'hips-below-line': {
    unit: 'cm',
    views: ASIDE,
    of: (m) => {
      const [a, b, hip] = [m.middle('shoulder'), m.middle('ankle'), m.middle('hip')];
      return a[1] + ((b[1] - a[1]) * (hip[0] - a[0])) / (b[0] - a[0]) - hip[1];
    },
  },
  /** Of the heel over the toes; not in a stride, in which one foot is soon taken for the other. */
  'heel-height': {
    unit: 'cm',
    views: ASIDE,
    of: (m) =>
      Math.abs(m.spot('left.ankle')[0] - m.spot('right.ankle')[0]) > STRIDE_CM
        ? NaN
        : m.middle('heel')[1] - m.middle('toe')[1],
  },
  /** How far a knee lies inside the line from hip to ankle. */
  'knees-in': {
    unit: 'cm',
    views: FACING,
    of: (m) =>
      most(m, (side) => {
        const [hip, knee, ankle] = [m.spot(`${side}.hip`), m.spot(`${side}.knee`), m.spot(`${side}.ankle`)];
        // Of a leg that is folded up or far behind there is no line to speak of.
        if (hip[1] - ankle[1] < LEAST_LEG_CM) return NaN;
        const share = (knee[1] - hip[1]) / (ankle[1] - hip[1]);
        return (hip[0] + share * (ankle[0] - hip[0]) - knee[0]) * leftWay(m) * (side === 'left' ? 1 : -1);
      }),
  },
  'hips-level': {
    unit: '°',
    views: FACING,
    of: (m) => tilt(m.spot('left.hip'), m.spot('right.hip')),
  },
  /** Of the upper arm from along the trunk, forward. */
  'upper-arm-ahead': {
    unit: '°',
    views: ASIDE,
    of: (m) => {
      const [hip, shoulder, elbow] = [m.middle('hip'), m.middle('shoulder'), m.middle('elbow')];
      const turn =
        ANGLE(elbow[0] - shoulder[0], shoulder[1] - elbow[1]) - ANGLE(hip[0] - shoulder[0], shoulder[1] - hip[1]);
      return shorter(turn);
    },
  },
  /** Of the line from shoulder to ear from that of the trunk, forward. */
  'head-ahead': {
    unit: '°',
    views: ASIDE,
    of: (m) => {
      const [hip, shoulder, ear] = [m.middle('hip'), m.middle('shoulder'), m.middle('ear')];
      const turn =
        ANGLE(ear[0] - shoulder[0], ear[1] - shoulder[1]) - ANGLE(shoulder[0] - hip[0], shoulder[1] - hip[1]);
      return shorter(turn);
    },
  },
};

/** Of a rep as a whole. Depth lies in the picture from the side alone. */
export const MEASURED_OF_REP: Readonly<Record<RepQuantity, { unit: Unit; views: readonly View[] }>> = {
  reach: { unit: '°', views: ASIDE },
  lowering: { unit: '%', views: ALL },
};

/** From where a quantity can be told. */
export const viewsOf = (of: Quantity): readonly View[] => (isOfRep(of) ? MEASURED_OF_REP[of] : MEASURED[of]).views;

/** Feet further apart than this, front to back, stand in a stride. */
const STRIDE_CM = 40;

/** Degrees by which a line across the body is not level. */
const tilt = (left: readonly [number, number], right: readonly [number, number]): number =>
  Math.abs(degrees(Math.atan2(left[1] - right[1], Math.abs(left[0] - right[0]))));
