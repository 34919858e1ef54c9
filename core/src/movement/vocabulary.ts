/**
 * The words of the job: every closed list that a movement, a client or a session may choose from.
 * A value here is a stable slug; `words.ts` turns it into what a person reads.
 */

export const PATTERNS = [
  'squat',
  'lunge',
  'hinge',
  'push',
  'pull',
  'brace',
  'rotate',
  'carry',
  'travel',
  'mobilise',
] as const;
export type Pattern = (typeof PATTERNS)[number];

export const ROLES = ['strength', 'power', 'conditioning', 'mobility', 'stretch', 'drill'] as const;
export type Role = (typeof ROLES)[number];

export const POSITIONS = [
  'standing',
  'kneeling',
  'all-fours',
  'prone',
  'supine',
  'side-lying',
  'seated',
  'hanging',
] as const;
export type Position = (typeof POSITIONS)[number];

/** `both`: left and right work together; `alternating`: they take turns within a set; `each`: one side is finished, then the other. */
export const SIDES = ['both', 'alternating', 'each'] as const;
export type Sides = (typeof SIDES)[number];

export const PLANES = ['sagittal', 'frontal', 'transverse'] as const;
export type Plane = (typeof PLANES)[number];

export const MUSCLES = [
  'quads',
  'glutes',
  'hamstrings',
  'adductors',
  'outer-hips',
  'hip-flexors',
  'calves',
  'shins',
  'low-back',
  'upper-back',
  'lats',
  'mid-back',
  'chest',
  'front-shoulders',
  'side-shoulders',
  'rear-shoulders',
  'shoulder-blades',
  'biceps',
  'triceps',
  'forearms',
  'abs',
  'obliques',
  'deep-trunk',
  'neck',
] as const;
export type Muscle = (typeof MUSCLES)[number];

export const KIT_ITEMS = [
  'dumbbell',
  'bell',
  'barbell',
  'backpack',
  'jug',
  'band',
  'strap',
  'chair',
  'bench',
  'step',
  'slider',
  'mat',
  'bar',
  'cable',
  'rope',
  'dowel',
  'plate',
  'ball',
  'cushion',
  'leg-press',
  'rack',
  'safety-arms',
  'anchor',
  'cable-handle',
  'jump-box',
  'pull-down-machine',
  'row-machine',
  'chest-press-machine',
  'leg-extension-machine',
  'leg-curl-machine',
  'hip-machine',
  'rower',
  'bike',
  'sled',
  'trap-bar',
  'assist-machine',
  'back-extension-bench',
  'throw-ball',
  'treadmill',
  'skipping-rope',
  'towel',
  'wall',
] as const;
export type KitItem = (typeof KIT_ITEMS)[number];

/** What every room has: never a reason to rule a movement out. */
export const ALWAYS_AT_HAND: readonly KitItem[] = ['wall', 'towel'];

/** What a home has that never saw a gym: a bag to load, a jug to fill, something to sit on, a broom, a rug. */
export const HOUSEHOLD: readonly KitItem[] = [...ALWAYS_AT_HAND, 'backpack', 'jug', 'chair', 'dowel', 'mat'];

/** Room to work in, from a spot where one can stand to a length to travel. Ordered. */
export const SPACES = ['spot', 'mat', 'lane'] as const;
export type Space = (typeof SPACES)[number];

/**
 * What a movement asks of a body: 0 nothing, 1 a little, 2 clearly, 3 strongly.
 */
export const DEMANDS = [
  'deep-knee-bend',
  'hip-bend',
  'hip-turn',
  'loaded-hinge',
  'loaded-spine-bend',
  'spine-bend',
  'spine-twist',
  'spine-arch',
  'long-lever-trunk',
  'belly-strain',
  'overhead',
  'loaded-shoulder',
  'weight-on-wrist',
  'kneeling',
  'weight-on-knees',
  'impact',
  'single-leg-balance',
  'lying-face-down',
  'lying-on-back',
  'head-below-heart',
  'breath-hold',
  'hard-effort',
  'hard-grip',
  'neck-load',
  'toes-bent-under-load',
  'floor-to-standing',
  'transfer',
  'standing',
  'leg-drive',
  'spotter-needed',
  'second-person',
] as const;
export type Demand = (typeof DEMANDS)[number];

/**
 * What a condition closes beside demands. `ruled-out`: a movement's own caution says not with it; `not-suitable`: nobody marked the
 * movement as suitable for it.
 */
export const RULINGS = ['ruled-out', 'not-suitable'] as const;
export type Ruling = (typeof RULINGS)[number];

/** All that a limit can be on. */
export const LIMITED = [...DEMANDS, ...RULINGS] as const;
export type Limited = (typeof LIMITED)[number];

export const PHASES = [
  'set-up',
  'enter',
  'reach',
  'step',
  'lower',
  'bottom',
  'rise',
  'pull',
  'top',
  'jump',
  'land',
  'cycle',
  'turn',
  'hold',
  'return',
  'leave',
  'finish',
] as const;
export type Phase = (typeof PHASES)[number];

export const FOCUSES = ['inward', 'outward', 'image'] as const;
export type Focus = (typeof FOCUSES)[number];

export const CHANNELS = ['say', 'show', 'touch'] as const;
export type Channel = (typeof CHANNELS)[number];

export const VIEWS = ['front', 'side', 'back', 'oblique'] as const;
export type View = (typeof VIEWS)[number];

/** `stop`: end the set now; `fix`: nothing is added until it is solved; `polish`: worth a word when there is time. Most serious first. */
export const SEVERITIES = ['stop', 'fix', 'polish'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** The correction steps, from least to most intrusive. */
export const CORRECTION_KINDS = ['say', 'show', 'touch', 'prop', 'slow', 'shorten', 'lighten', 'swap', 'stop'] as const;
export type CorrectionKind = (typeof CORRECTION_KINDS)[number];

/** Where a fault comes from. A cause is written `kind/detail`, such as `set-up/stance-too-narrow`, so that faults can share it. */
export const CAUSE_KINDS = ['set-up', 'understanding', 'strength', 'mobility', 'balance', 'fatigue', 'load'] as const;
export type CauseKind = (typeof CAUSE_KINDS)[number];

export const DIRECTIONS = ['easier', 'harder', 'sideways'] as const;
export type Direction = (typeof DIRECTIONS)[number];

export const LEVERS = [
  'load',
  'depth',
  'base',
  'leverLength',
  'tempo',
  'assistance',
  'coordination',
  'impact',
  'plane',
  'range',
  'speed',
  'grip',
] as const;
export type Lever = (typeof LEVERS)[number];

export const DOSE_MODES = ['reps', 'time', 'distance'] as const;
export type DoseMode = (typeof DOSE_MODES)[number];

export const PURPOSES = ['learn', 'strength', 'muscle', 'endurance', 'power', 'mobility'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** How a set felt. `easy` about 5 reps left, `medium` about 3, `hard` about 1, `failed` none. Ordered. */
export const EFFORTS = ['easy', 'medium', 'hard', 'failed'] as const;
export type Effort = (typeof EFFORTS)[number];

/** What is found once for a client and a movement, and set the same the next time. */
export const SET_UPS = [
  'stance',
  'hand-width',
  'box-height',
  'bench-angle',
  'seat',
  'pin',
  'cable-height',
  'rack-height',
  'safety-height',
  'band',
  'strap-length',
  'step-length',
] as const;
export type SetUp = (typeof SET_UPS)[number];

/** Whether something harder is meant to follow. */
export const PROGRESSIONS = ['yes', 'none intended'] as const;

export const REGIONS = [
  'neck',
  'shoulder',
  'elbow',
  'wrist',
  'upper-back',
  'low-back',
  'hip',
  'knee',
  'ankle',
  'foot',
] as const;
export type Region = (typeof REGIONS)[number];

/** What is measured of a rep as a whole: how far it goes, and how long it lowers. */
export const REP_QUANTITIES = ['reach', 'lowering'] as const;

/** What a camera can measure of a body: bends and leans in degrees, lengths in centimetres. */
export const QUANTITIES = [
  'knee-bend',
  'hip-bend',
  'elbow-bend',
  'arm-raise',
  'trunk-lean',
  'hip-height',
  'hand-height',
  'trunk-aside',
  'hips-below-line',
  'heel-height',
  'knees-in',
  'hips-level',
  'upper-arm-ahead',
  'head-ahead',
  ...REP_QUANTITIES,
] as const;
export type Quantity = (typeof QUANTITIES)[number];

/** What of a rep something is looked for in: all of it, its far end, or how far it went to and fro. */
export const REP_PARTS = ['whole', 'turn', 'spread'] as const;
export type RepPart = (typeof REP_PARTS)[number];
