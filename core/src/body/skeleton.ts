/**
 * The skeleton: segment lengths as fractions of stature, and the anatomical angles that pose it, with their limits.
 * Lengths: Drillis & Contini (1966), as given by Winter, Biomechanics and Motor Control of Human Movement; the trunk's share of
 * lumbar and thoracic spine, and the heel, are from the same heights. Limits are generous ends of normal ranges, not goals.
 */

export const STATURE_CM = 172;

/** Fractions of stature. */
export const SEGMENT = {
  thigh: 0.245,
  shank: 0.246,
  ankleHeight: 0.039,
  footLength: 0.152,
  heelBehindAnkle: 0.038,
  /** From the ankle to the ball of the foot, on which a lifted heel turns. */
  ball: 0.076,
  toes: 0.038,
  upperArm: 0.186,
  forearm: 0.146,
  hand: 0.108,
  /** Half the distance between the hip joints, and between the shoulder joints. */
  halfHips: 0.052,
  halfShoulders: 0.114,
  sternumToClavicle: 0.018,
  pelvis: 0.055,
  lumbar: 0.09,
  thorax: 0.143,
  neck: 0.052,
  head: 0.13,
} as const;

export const SIDES_OF_BODY = ['left', 'right'] as const;
export type BodySide = (typeof SIDES_OF_BODY)[number];

type Range = readonly [least: number, most: number];

/** Angles of the middle of the body, in degrees. `tilt` forward, `list` and `side` to the right, `turn` and `twist` to the left are positive. */
const MIDDLE = {
  'pelvis.tilt': [-180, 180],
  'pelvis.list': [-95, 95],
  'pelvis.turn': [-180, 180],
  'lumbar.flex': [-35, 60],
  'lumbar.side': [-30, 30],
  'lumbar.twist': [-20, 20],
  'thorax.flex': [-30, 45],
  'thorax.side': [-30, 30],
  'thorax.twist': [-50, 50],
  'neck.flex': [-60, 60],
  'neck.side': [-45, 45],
  'neck.twist': [-80, 80],
} as const satisfies Record<string, Range>;

/**
 * Angles of each side, in degrees. Bending (`flex`), away from the middle (`out`) and turning inwards (`turn`) are positive;
 * for the ankle toes up, for the wrist towards the palm.
 */
const SIDED = {
  'girdle.raise': [-10, 40],
  'girdle.forward': [-30, 35],
  'shoulder.flex': [-90, 200],
  'shoulder.out': [-60, 180],
  'shoulder.turn': [-110, 100],
  'elbow.flex': [-5, 155],
  'forearm.turn': [-115, 115],
  'wrist.flex': [-95, 85],
  'wrist.tilt': [-55, 45],
  'hip.flex': [-40, 150],
  'hip.out': [-45, 85],
  'hip.turn': [-60, 50],
  'knee.flex': [-5, 160],
  'ankle.flex': [-70, 45],
  'ankle.tilt': [-52, 52],
  'ankle.turn': [-50, 50],
  'toes.up': [-20, 90],
  /** How far the heel of a planted foot is lifted; it turns on the ball. */
  'heel.lift': [0, 90],
} as const satisfies Record<string, Range>;

export type MiddleAngle = keyof typeof MIDDLE;
export type SidedAngle = keyof typeof SIDED;
export type Angle = MiddleAngle | `${BodySide}.${SidedAngle}`;

const sided = Object.entries(SIDED) as [SidedAngle, Range][];

/** Every angle with its limits. */
export const LIMITS = {
  ...MIDDLE,
  ...Object.fromEntries(SIDES_OF_BODY.flatMap((side) => sided.map(([name, range]) => [`${side}.${name}`, range]))),
} as Readonly<Record<Angle, Range>>;

export const ANGLES = Object.keys(LIMITS) as readonly Angle[];

/** Angles as they are written in a figure: without a side, both sides. */
export const WRITTEN_ANGLES: ReadonlySet<string> = new Set([...ANGLES, ...Object.keys(SIDED)]);

/** One posture: every angle in degrees. */
export type Pose = Readonly<Record<Angle, number>>;
/** Some angles of a posture, as written: `hip.flex` for both sides, `left.hip.flex` for one. */
export type PartialPose = Readonly<Record<string, number>>;

/** The full names of one side's angles: made once, because making names is what a frame would spend most of its time on. */
export const SIDE_ANGLES = Object.fromEntries(
  SIDES_OF_BODY.map((side) => [side, Object.fromEntries(sided.map(([name]) => [name, `${side}.${name}`]))]),
) as Readonly<Record<BodySide, Readonly<Record<SidedAngle, Angle>>>>;

/** Standing at ease: everything at nought. */
export const AT_EASE: Pose = Object.fromEntries(ANGLES.map((angle) => [angle, 0])) as Pose;

/** The angles that a written name stands for. */
export const anglesOf = (written: string): Angle[] =>
  written in LIMITS ? [written as Angle] : SIDES_OF_BODY.map((side) => `${side}.${written as SidedAngle}` as const);

/** Lays partial poses over one another, the later over the earlier; one side over both within a layer. */
export function posed(layers: readonly PartialPose[], under: Pose = AT_EASE): Pose {
  const pose: Record<Angle, number> = { ...under };
  for (const layer of layers)
    for (const [written, value] of Object.entries(layer).sort(([a], [b]) => Number(a in LIMITS) - Number(b in LIMITS)))
      for (const angle of anglesOf(written)) pose[angle] = value;
  return pose;
}

/** Angles that point the other way in a mirror. */
const FLIPS: ReadonlySet<string> = new Set(
  Object.keys(MIDDLE).filter((angle) => /\.(list|side|turn|twist)$/.test(angle)),
);

/** The mirror image of an angle's name. */
export const mirroredName = (name: string): string =>
  name.startsWith('left.') ? `right.${name.slice(5)}` : name.startsWith('right.') ? `left.${name.slice(6)}` : name;

/** Left and right changed places. Doing it twice gives the pose back. */
export const mirrored = (pose: Pose): Pose =>
  Object.fromEntries(
    ANGLES.map((angle) => [angle, FLIPS.has(angle) ? -pose[angle] || 0 : pose[mirroredName(angle) as Angle]]),
  ) as Pose;

/** Angles that break their limits by more than a rounding error. */
export const beyondLimits = (pose: Pose): Angle[] =>
  ANGLES.filter((angle) => pose[angle] < LIMITS[angle][0] - 1e-6 || pose[angle] > LIMITS[angle][1] + 1e-6);
