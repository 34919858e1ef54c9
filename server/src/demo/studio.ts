/** The demo studio: invented people in an invented room above a working harbour, and how each of them tends to move. */
import type { Benchmark, DayKind, KeptPlace, ReadinessCheck } from '@waxwing/core/client';
import type { Focus, KitPiece, Limit, RuleChoices } from '@waxwing/core/movement';
import type { Part } from '@waxwing/core/schema';

export const NET_LOFT = {
  name: 'The Net Loft',
  trainer: 'Maren Achterberg',
  emergencyText:
    'Stop everything. One person stays with the client, one opens the street door and waits on the quay. First-aid box and defibrillator: foot of the stairs, left of the winch.',
  emergencyPhone: '112',
} as const;

const pair = (kg: number): KitPiece => ({ item: 'dumbbell', count: 2, kg });
const bell = (kg: number): KitPiece => ({ item: 'bell', count: 1, kg });

export const STUDIO_KIT: KitPiece[] = [
  ...[2, 4, 6, 8, 10, 12.5, 15, 20].map(pair),
  {
    item: 'dumbbell',
    count: 2,
    kg: 2,
    plates: [
      { kg: 0.5, count: 4 },
      { kg: 1.25, count: 8 },
      { kg: 2.5, count: 8 },
    ],
    changeSeconds: 30,
  },
  ...[8, 12, 16, 24].map(bell),
  ...['green', 'blue', 'black'].map((label, i): KitPiece => ({ item: 'band', count: 1, label, order: i + 1 })),
  { item: 'strap', count: 2 },
  { item: 'step', count: 1, heightsCm: [10, 20, 30] },
  { item: 'slider', count: 4 },
  { item: 'mat', count: 6 },
  { item: 'chair', count: 2 },
  { item: 'bench', count: 1 },
  { item: 'rope', count: 1 },
  { item: 'cable', count: 1, kg: 5, stepKg: 2.5, mostKg: 50 },
  { item: 'dowel', count: 2 },
  { item: 'anchor', count: 2 },
  { item: 'jump-box', count: 1, heightsCm: [30, 45] },
];

/** Where else people are met: the quay below, with its bollards and steps. */
export const PLACES: KeptPlace[] = [
  {
    id: '018f0000-0000-7000-8000-0000000000a1',
    name: 'Lower Quay',
    space: 'lane',
    kit: [
      { item: 'bench', count: 2 },
      { item: 'step', count: 2, heightsCm: [18] },
    ],
  },
];

/** One movement of somebody's programme over the six weeks: what is aimed at in the first week, and what each week adds. */
export interface Work {
  movementId: string;
  /** Week of the six in which it is done first, and last. */
  from: number;
  to: number;
  /** Reps or seconds a set. */
  amount: number;
  addEachWeek: number;
  kg?: readonly [first: number, ...later: number[]];
  sets: number;
}

export interface Person {
  name: string;
  about: string;
  goal: string;
  healthNote: string;
  dayMostly: DayKind;
  limits: Limit[];
  kit: KitPiece[];
  /** Where their schools differ from the studio's. */
  houseRules?: RuleChoices;
  /** Days before today on which touch was agreed; undefined for never. */
  touchConsentDaysAgo?: number;
  /** Days before today on which being filmed was agreed; undefined for never. */
  filmConsentDaysAgo?: number;
  /** To which questions before starting they said yes, and who cleared it; no to all where nothing is said, and null where they were never asked. */
  answered?: Pick<ReadinessCheck, 'yes' | 'clearedBy'> | null;
  /** Days back within a week on which they train, and the hour. */
  trains: readonly number[];
  hour: number;
  /** Length of their sessions, and what the next one is for. */
  minutes: number;
  nextFor: string;
  /** Comes in on the day on which the demo is looked at as well. */
  comesToday?: true;
  /** Chance that a cue of this focus works. */
  hears: Readonly<Record<Focus, number>>;
  /** Chance per set, in the first week, that a fault shows. */
  tends: Readonly<Record<string, number>>;
  work: readonly Work[];
  /** Trains in the same session as the person of this name. */
  sharesWith?: string;
  /** What was measured and noted by hand, some weeks ago. */
  measured?: { name: string; unit: Benchmark['unit']; values: readonly { weeksAgo: number; value: number }[] };
  /** What the first line of the next strength work is made of. */
  inParts?: Part[];
}

export const PEOPLE: readonly Person[] = [
  {
    name: 'Tove Lindqvist',
    about: 'Sailmaker; long hours bent over a sewing bench',
    goal: 'A back that lasts the season, and a first full push-up',
    healthNote: 'Stiff between the shoulder blades by evening. Nothing diagnosed.',
    dayMostly: 'bends',
    limits: [],
    kit: [pair(4), pair(6), { item: 'mat', count: 1 }, { item: 'chair', count: 1 }],
    touchConsentDaysAgo: 40,
    filmConsentDaysAgo: 40,
    trains: [2, 5],
    hour: 16,
    minutes: 60,
    nextFor: 'A back for the season',
    hears: { inward: 0.3, outward: 0.5, image: 0.85 },
    tends: {
      'goblet-squat/torso-folds': 0.5,
      'knee-push-up/worms-up': 0.4,
      'supported-one-arm-row/shrugs': 0.6,
      'forearm-plank/hips-sag': 0.4,
    },
    work: [
      { movementId: 'goblet-squat', from: 1, to: 6, amount: 8, addEachWeek: 1, kg: [8, 8, 10], sets: 3 },
      { movementId: 'hands-raised-push-up', from: 1, to: 3, amount: 9, addEachWeek: 1, sets: 3 },
      { movementId: 'knee-push-up', from: 4, to: 6, amount: 8, addEachWeek: 2, sets: 3 },
      { movementId: 'supported-one-arm-row', from: 1, to: 6, amount: 10, addEachWeek: 1, kg: [8, 10], sets: 3 },
      { movementId: 'forearm-plank', from: 1, to: 6, amount: 20, addEachWeek: 4, sets: 2 },
    ],
  },
  {
    name: 'Osei Brandt',
    about: 'Harbour pilot; works nights, climbs ladders',
    goal: 'Strong legs on rope ladders, and better sleep',
    healthNote: 'Night shifts: ask about sleep before every session.',
    dayMostly: 'sits',
    limits: [],
    kit: [bell(12), { item: 'backpack', count: 1, kg: 10 }, { item: 'mat', count: 1 }],
    trains: [1, 4],
    hour: 10,
    minutes: 45,
    nextFor: 'Legs for rope ladders',
    hears: { inward: 0.2, outward: 0.85, image: 0.5 },
    tends: {
      'goblet-squat/knees-in': 0.6,
      'goblet-squat/heels-lift': 0.35,
      'dumbbell-romanian-deadlift/weights-drift': 0.5,
      'push-up/shoulders-hike': 0.3,
      'reverse-lunge/crosses-line': 0.4,
    },
    work: [
      { movementId: 'goblet-squat', from: 1, to: 6, amount: 9, addEachWeek: 1, kg: [12, 12, 16], sets: 3 },
      {
        movementId: 'dumbbell-romanian-deadlift',
        from: 1,
        to: 6,
        amount: 9,
        addEachWeek: 1,
        kg: [12.5, 12.5, 15],
        sets: 3,
      },
      { movementId: 'push-up', from: 1, to: 6, amount: 7, addEachWeek: 1, sets: 3 },
      { movementId: 'reverse-lunge', from: 2, to: 6, amount: 8, addEachWeek: 1, sets: 2 },
      { movementId: 'bent-over-row', from: 1, to: 6, amount: 9, addEachWeek: 1, kg: [12.5, 12.5, 15], sets: 3 },
    ],
  },
  {
    name: 'Ilka Varga',
    about: 'Teacher; shares an hour with Rasmus from next door',
    goal: 'Carry the shopping up four floors without a stop',
    healthNote: 'Gave birth fourteen months ago; cleared for exercise by her own doctor.',
    dayMostly: 'sits',
    limits: [{ demand: 'impact', allowed: 1, reason: 'asked to build up impact slowly' }],
    kit: [
      { item: 'band', count: 1 },
      { item: 'jug', count: 2, kg: 5 },
      { item: 'chair', count: 1 },
      { item: 'mat', count: 1 },
    ],
    touchConsentDaysAgo: 30,
    filmConsentDaysAgo: 12,
    trains: [3],
    hour: 17,
    minutes: 60,
    comesToday: true,
    nextFor: 'Four floors up',
    hears: { inward: 0.6, outward: 0.55, image: 0.6 },
    tends: {
      'bodyweight-squat/knees-in': 0.4,
      'knee-forearm-plank/holds-breath': 0.5,
      'hands-raised-push-up/hips-sag': 0.4,
    },
    work: [
      { movementId: 'bodyweight-squat', from: 1, to: 6, amount: 11, addEachWeek: 1, sets: 3 },
      { movementId: 'hands-raised-push-up', from: 1, to: 6, amount: 7, addEachWeek: 1, sets: 2 },
      { movementId: 'wall-touch-hinge', from: 1, to: 4, amount: 8, addEachWeek: 1, sets: 2 },
      { movementId: 'knee-forearm-plank', from: 1, to: 6, amount: 18, addEachWeek: 3, sets: 2 },
    ],
  },
  {
    name: 'Rasmus Tolle',
    about: 'Book-keeper; shares an hour with Ilka from next door',
    goal: 'Move more, sit better, keep up with Ilka',
    healthNote: '',
    dayMostly: 'sits',
    limits: [],
    kit: [
      { item: 'chair', count: 1 },
      { item: 'mat', count: 1 },
    ],
    trains: [3],
    hour: 17,
    minutes: 60,
    nextFor: 'Four floors up',
    hears: { inward: 0.4, outward: 0.6, image: 0.6 },
    tends: {
      'bodyweight-squat/heels-lift': 0.5,
      'wall-touch-hinge/squats-it': 0.5,
      'knee-push-up/bottom-stays-up': 0.4,
    },
    work: [
      { movementId: 'bodyweight-squat', from: 1, to: 6, amount: 9, addEachWeek: 1, sets: 3 },
      { movementId: 'knee-push-up', from: 1, to: 6, amount: 6, addEachWeek: 1, sets: 2 },
      { movementId: 'wall-touch-hinge', from: 1, to: 4, amount: 8, addEachWeek: 0, sets: 2 },
      { movementId: 'forearm-plank', from: 1, to: 6, amount: 15, addEachWeek: 3, sets: 2 },
    ],
    sharesWith: 'Ilka Varga',
  },
  {
    name: 'Joaquim Peel',
    about: 'Retired boatbuilder',
    goal: 'Get up from the floor with the grandchildren, and stay on the boat',
    healthNote: 'Left knee uneasy in depth since an old fall; his doctor knows and is happy with pain-free training.',
    dayMostly: 'stands',
    limits: [
      { demand: 'deep-knee-bend', allowed: 1, reason: 'left knee uneasy in depth' },
      { demand: 'impact', allowed: 0, reason: 'left knee uneasy in depth' },
      { demand: 'weight-on-knees', allowed: 1, reason: 'kneeling only on a pad' },
    ],
    houseRules: { 'knee-travel': 'shin-upright' },
    kit: [
      { item: 'chair', count: 1 },
      { item: 'band', count: 1 },
      { item: 'jug', count: 2, kg: 4 },
    ],
    touchConsentDaysAgo: 41,
    trains: [2, 6],
    hour: 9,
    minutes: 45,
    comesToday: true,
    answered: { yes: ['joint'], clearedBy: 'his own doctor' },
    nextFor: 'Kind to the knee',
    measured: {
      name: 'Chair stands in 30 s',
      unit: 'reps',
      values: [
        { weeksAgo: 6, value: 9 },
        { weeksAgo: 3, value: 11 },
        { weeksAgo: 1, value: 13 },
      ],
    },
    hears: { inward: 0.25, outward: 0.75, image: 0.7 },
    tends: {
      'sit-to-stand/falls-into-chair': 0.5,
      'sit-to-stand/one-leg-works': 0.5,
      'wall-push-up/shoulders-hike': 0.3,
    },
    work: [
      { movementId: 'sit-to-stand', from: 1, to: 6, amount: 7, addEachWeek: 1, sets: 3 },
      { movementId: 'wall-push-up', from: 1, to: 4, amount: 9, addEachWeek: 2, sets: 2 },
      { movementId: 'hands-raised-push-up', from: 5, to: 6, amount: 6, addEachWeek: 0, sets: 2 },
      { movementId: 'dumbbell-romanian-deadlift', from: 2, to: 6, amount: 8, addEachWeek: 1, kg: [6, 6, 8], sets: 2 },
      { movementId: 'supported-one-arm-row', from: 1, to: 6, amount: 9, addEachWeek: 1, kg: [6, 8], sets: 2 },
    ],
  },
  {
    name: 'Wren Adeyemi',
    about: 'Cellist; hands and wrists are the livelihood',
    goal: 'Strong back and trunk without a sore wrist before a concert',
    healthNote: 'Right wrist dislikes weight on a bent hand; a hand clinician follows it.',
    dayMostly: 'sits',
    limits: [
      { demand: 'weight-on-wrist', allowed: 0, reason: 'right wrist dislikes weight on it' },
      { demand: 'hard-grip', allowed: 1, reason: 'spare the hands before concerts' },
    ],
    kit: [
      { item: 'band', count: 2 },
      { item: 'mat', count: 1 },
      { item: 'chair', count: 1 },
    ],
    trains: [1, 5],
    hour: 13,
    minutes: 45,
    nextFor: 'Nothing on the wrists',
    hears: { inward: 0.75, outward: 0.4, image: 0.65 },
    tends: {
      'split-squat/front-knee-in': 0.4,
      'forearm-plank/shoulders-creep': 0.5,
      'single-leg-deadlift/hip-opens': 0.5,
    },
    work: [
      { movementId: 'split-squat', from: 1, to: 6, amount: 8, addEachWeek: 1, sets: 3 },
      { movementId: 'single-leg-deadlift', from: 2, to: 6, amount: 6, addEachWeek: 1, sets: 2 },
      { movementId: 'forearm-plank', from: 1, to: 6, amount: 25, addEachWeek: 4, sets: 3 },
      { movementId: 'goblet-squat', from: 1, to: 6, amount: 9, addEachWeek: 1, kg: [8, 8, 10], sets: 2 },
    ],
  },
  {
    name: 'Dagny Holt',
    about: 'Apprentice rigger; strong and impatient',
    goal: 'Plank rows, pull-ups, everything, soon',
    healthNote: '',
    dayMostly: 'lifts',
    limits: [],
    kit: [pair(10), { item: 'bar', count: 1 }, { item: 'mat', count: 1 }],
    trains: [1, 3, 6],
    hour: 18,
    minutes: 60,
    nextFor: 'Clean before heavy',
    measured: {
      name: 'Dead hang',
      unit: 's',
      values: [
        { weeksAgo: 6, value: 31 },
        { weeksAgo: 4, value: 38 },
        { weeksAgo: 1, value: 47 },
      ],
    },
    answered: null,
    inParts: [
      { kind: 'reps', count: 5, tempo: null },
      { kind: 'reps', count: 2, tempo: '4-0-2-0' },
      { kind: 'hold', count: 5, at: 'bottom' },
    ],
    comesToday: true,
    hears: { inward: 0.35, outward: 0.65, image: 0.5 },
    tends: {
      'dumbbell-front-squat/hips-first': 0.4,
      'forward-lunge/loud-landing': 0.6,
      'bent-over-row/swings': 0.6,
      'push-up/hips-sag': 0.3,
      'plank-toe-taps/stamps': 0.5,
    },
    work: [
      { movementId: 'dumbbell-front-squat', from: 1, to: 6, amount: 6, addEachWeek: 1, kg: [15, 15, 20], sets: 3 },
      { movementId: 'push-up', from: 1, to: 6, amount: 10, addEachWeek: 1, sets: 3 },
      { movementId: 'bent-over-row', from: 1, to: 6, amount: 8, addEachWeek: 1, kg: [15, 15, 20], sets: 3 },
      { movementId: 'forward-lunge', from: 1, to: 6, amount: 8, addEachWeek: 1, sets: 2 },
      { movementId: 'plank-toe-taps', from: 2, to: 6, amount: 10, addEachWeek: 1, sets: 2 },
    ],
  },
];
