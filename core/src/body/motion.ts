/** A figure in time: key postures, held by their contacts, timed by the dose's tempo; faults mixed in by amount. */
import type { Movement } from '../movement/schema.js';
import { type Begins, beginsWith, halfOf, inOrder } from '../movement/tempo.js';
import type { Phase } from '../movement/vocabulary.js';
import { standsOn, toBalance } from './balance.js';
import {
  type Anchor,
  anchorFor,
  type Anchors,
  type Contact,
  type Held,
  type Hold,
  hold,
  levelled,
  pointOf,
} from './contacts.js';
import { contactsOf, type Figure, type FigureFault, type FigureKey, type FigureLibrary, layersOf } from './figure.js';
import { type Body, bodyAt } from './kinematics.js';
import { onHands } from './on-hands.js';
import { add, between, distance, minus, times, type Vec } from './rotation.js';
import {
  type Angle,
  ANGLES,
  anglesOf,
  beyondLimits,
  LIMITS,
  mirrored,
  mirroredName,
  type Pose,
  posed,
  SIDES_OF_BODY,
} from './skeleton.js';

/** Faults by id with how much of each is shown, 0–1. */
export type FaultAmounts = Readonly<Record<string, number>>;

/** One key posture, settled on its contacts. */
interface Key {
  pose: Pose;
  root: Vec;
  anchors: Anchors;
}

/** From one key to the next. */
interface Segment {
  from: Key;
  to: Key;
  seconds: number;
  phase: Phase | null;
}

export interface Motion {
  /** Of whoever is shown: the same name is the same person. */
  name: string;
  figure: Figure;
  segments: readonly Segment[];
  /** Seconds of one round. */
  seconds: number;
  /** How far one round takes the body, in centimetres. */
  travel: Vec;
  /** A hold breathes; everything else moves. */
  still: boolean;
  base: readonly Contact[];
  sides: Movement['sides'];
  /** How somebody lies decides from where a side of them is seen. */
  position: Movement['position'] | undefined;
  /** The key postures in order, for a strip. */
  keys: readonly Key[];
  /** Somebody who helps and keeps still. */
  partner: Body | null;
}

export interface Frame {
  pose: Pose;
  body: Body;
  anchors: Anchors;
  phase: Phase | null;
  /** What a travelling round has covered so far. */
  travelled: Vec;
}

type Dose = Pick<Movement, 'dose' | 'phases' | 'sides'> & Partial<Pick<Movement, 'position'>>;

/** A half of a rep is never drawn quicker than this. */
const LEAST_SECONDS = 0.7;
const BREATH_SECONDS = 4;

/** Seconds of going, staying, coming back and resting, from the tempo. */
export function repSeconds(tempo: string, begins: Begins): readonly [number, number, number, number] {
  const [go, there, back, home] = inOrder(tempo, begins);
  const usual = (seconds: number) => (go + back === 0 ? 1.5 : Math.max(LEAST_SECONDS, seconds));
  return [usual(go), Math.max(0.2, there), usual(back), Math.max(0.4, home)];
}

/** Phases that are postures before and after the work rather than parts of it. */
const AROUND: readonly Phase[] = ['set-up', 'finish', 'enter', 'leave'];

/** The phases of going, staying, coming back and resting, for a figure that begins with `first`. */
export function phasesOfRep(
  phases: readonly Phase[],
  first: Begins,
): readonly [Phase | null, Phase | null, Phase | null, Phase | null] {
  const parts = phases.filter((phase) => !AROUND.includes(phase));
  const turn = parts.findIndex((phase) => halfOf(phase) === first);
  // A figure may begin in the middle of the order in which a coach goes through the rep, such as with the weight on the floor.
  if (turn > 0 && beginsWith(parts) !== first) {
    const [before, [up = null, there]] = [
      parts.slice(0, turn),
      parts.slice(turn).filter((phase) => phase !== 'return'),
    ];
    const [down = null, home] = before.slice(before.findIndex((phase) => halfOf(phase) !== null));
    return [up, there ?? up, down, home ?? down];
  }
  const [a = null, b = null, c = null, d = null] = parts;
  if (parts.length <= 1) return [a, a, a, a];
  return parts.length === 2 ? [a, a, b, b] : [a, b, c, d ?? c];
}

function poseOf(library: FigureLibrary, written: FigureKey): Pose {
  return posed(layersOf(written).map((layer) => (typeof layer === 'string' ? (library.poses[layer] ?? {}) : layer)));
}

const holdsOf = (figure: Figure, written: FigureKey, mirror = false): Map<Contact, Hold> =>
  new Map(
    Object.entries((Array.isArray(written) ? undefined : written.contacts) ?? figure.contacts).flatMap(([name, at]) =>
      contactsOf(name).map((contact): [Contact, Hold] => [mirror ? (mirroredName(contact) as Contact) : contact, at]),
    ),
  );

const glidingIn = ({ glides }: Figure): ReadonlySet<Contact> => new Set(glides.flatMap(contactsOf));

/** How near a contact must be put down to where it was first to be put down in that place. */
const HOME_CM = 14;

/** Settles a posture: contacts that go on keep their place, new ones are put down where the body has them. */
function settle(
  figure: Figure,
  pose: Pose,
  holds: ReadonlyMap<Contact, Hold>,
  base: readonly Contact[],
  before: Key | undefined,
  first: Key | undefined,
  by: Vec,
  stays: boolean,
): Key {
  if (holds.size === 0 && first) {
    const root = add(first.root, by);
    return { pose, root, anchors: new Map() };
  }
  const rests = new Set([...holds].filter(([, at]) => typeof at === 'number').map(([contact]) => contact));
  const key = onHands(pose, rests, (tipped) => putDown(figure, tipped, holds, base, before, first, by), true);
  return stays ? balanced(figure, key) : key;
}

/** A posture put down on its contacts as it is. */
function putDown(
  figure: Figure,
  pose: Pose,
  holds: ReadonlyMap<Contact, Hold>,
  base: readonly Contact[],
  before: Key | undefined,
  first: Key | undefined,
  by: Vec,
): Key & { body: Body } {
  const known: Anchors = before?.anchors ?? new Map();
  const gliding = glidingIn(figure);
  const going = new Map([...known].filter(([contact]) => holds.has(contact) && !gliding.has(contact)));
  // A first posture stands on its base before anything else is put down.
  const standing =
    going.size > 0
      ? hold(pose, going, base, before?.root)
      : onBase(pose, holds, base, add(first?.root ?? [0, figure.lift, 0], [by[0], 0, 0]));
  const anchors = new Map<Contact, Anchor>(
    [...holds].map(([contact, at]) => {
      const fresh = anchorFor(standing.body, contact, at);
      // A foot that comes back to about where it began comes back to just there.
      const home = gliding.has(contact) ? undefined : first?.anchors.get(contact);
      const back = home && distance(home.at, fresh.at) < HOME_CM ? home : fresh;
      return [contact, going.get(contact) ?? back];
    }),
  );
  return within(pose, anchors, base, standing.body.root, (contact) => !going.has(contact));
}

/** A foot that is further from its place than this was put elsewhere by the balance. */
const NEAR_CM = 0.4;

/** Somebody who stands leans until what they weigh is over their feet: the feet stay, the legs follow. */
function balanced(figure: Figure, key: Key): Key {
  const feet = standsOn(figure, key.anchors.keys());
  if (!feet) return key;
  const by = toBalance(bodyAt(key.pose, key.root), key.pose, feet, figure.holds);
  if (distance(by, [0, 0, 0]) < 0.1) return key;
  for (const share of [1, 0.75, 0.5, 0.25]) {
    const { pose, body } = hold(key.pose, key.anchors, [], add(key.root, times(by, share)));
    const stand = [...key.anchors].every(([contact, { at }]) => distance(pointOf(body, contact), at) < NEAR_CM);
    if (stand && beyondLimits(pose).length === 0) return { ...key, pose, root: body.root };
  }
  return key;
}

/** Holds a posture; a contact that may still be moved and is out of reach is put down as near as the limb comes. */
function within(
  pose: Pose,
  anchors: ReadonlyMap<Contact, Anchor>,
  base: readonly Contact[],
  from: Vec,
  mayMove: (contact: Contact) => boolean,
): Key & { body: Body } {
  let held = hold(pose, anchors, base, from);
  let placed = anchors;
  for (let round = 0; round < 3; round += 1) {
    placed = new Map(
      [...placed].map(([contact, anchor]) => {
        const [x, , z] = pointOf(held.body, contact);
        const by: Vec = [x - anchor.at[0], 0, z - anchor.at[2]];
        return [
          contact,
          mayMove(contact)
            ? { ...anchor, at: add(anchor.at, by), ...(anchor.end ? { end: add(anchor.end, by) } : {}) }
            : anchor,
        ];
      }),
    );
    held = hold(pose, placed, base, held.body.root);
  }
  return { pose: held.pose, root: held.body.root, anchors: placed, body: held.body };
}

/** The body at the height of what it rests on, the base below it. */
function onBase(pose: Pose, holds: ReadonlyMap<Contact, Hold>, base: readonly Contact[], from: Vec): Held {
  const feet = SIDES_OF_BODY.filter((side) => typeof holds.get(`${side}.foot`) === 'number');
  const level = levelled(pose, new Map(feet.map((side) => [side, undefined])));
  const loose = bodyAt(level, from);
  const anchors = new Map(
    base.flatMap((contact): [Contact, Anchor][] => {
      const at = holds.get(contact);
      return at === undefined ? [] : [[contact, { at: anchorFor(loose, contact, at).at }]];
    }),
  );
  const lifts = [...anchors].map(([contact, { at }]) => minus(at, pointOf(loose, contact))[1]);
  const lift = lifts.reduce((sum, one) => sum + one, 0) / Math.max(1, lifts.length);
  return { pose: level, body: bodyAt(level, add(from, [0, lift, 0])) };
}

interface Written {
  key: FigureKey;
  at: 'start' | 'end';
  /** With left and right changed over. */
  mirror?: boolean;
  /** Somebody could stay so: what is only passed through needs no balance. */
  stays?: boolean;
}

/** Settles postures one after the other; `before` are those that lead up to them. */
function settleAll(
  library: FigureLibrary,
  figure: Figure,
  written: readonly Written[],
  base: readonly Contact[],
  before: readonly Key[],
  faults: FaultAmounts = {},
): Key[] {
  const keys: Key[] = [];
  for (const { key, at, mirror = false, stays = false } of written) {
    const all = [...before, ...keys];
    const by: Vec = Array.isArray(key) ? [0, 0, 0] : [key.ahead, key.lift, 0];
    const plain = poseOf(library, key);
    const pose = mixedIn(mirror ? mirrored(plain) : plain, figure, faults, at);
    keys.push(settle(figure, pose, holdsOf(figure, key, mirror), base, all.at(-1), all[0], by, stays));
  }
  return keys;
}

/** The faults that show at this end of a rep. */
const active = (figure: Figure, faults: FaultAmounts, at: Written['at']): [fault: FigureFault, amount: number][] =>
  Object.entries(faults).flatMap(([id, amount]): [FigureFault, number][] => {
    const fault = figure.faults[id];
    if (!fault || amount === 0 || (figure.end && fault.at !== 'all' && fault.at !== at)) return [];
    return [[fault, amount]];
  });

/** A posture with faults mixed in, kept within what joints can do. */
function mixedIn(pose: Pose, figure: Figure, faults: FaultAmounts, at: Written['at']): Pose {
  const changed: Record<Angle, number> = { ...pose };
  for (const [fault, amount] of active(figure, faults, at))
    for (const [written, by] of Object.entries(fault.set))
      for (const angle of anglesOf(written)) {
        const [least, most] = LIMITS[angle];
        changed[angle] = Math.min(most, Math.max(least, changed[angle] + by * amount));
      }
  return changed;
}

/** A settled posture with faults mixed in, and held again where the clean rep is held. */
function withFaults(key: Key, figure: Figure, faults: FaultAmounts, at: Written['at'], base: readonly Contact[]): Key {
  const freed = new Set(active(figure, faults, at).flatMap(([fault]) => fault.free.flatMap(contactsOf)));
  const anchors = new Map([...key.anchors].filter(([contact]) => !freed.has(contact)));
  // In a hold the fault is there from the start, with hands and feet where it puts them.
  const still = !figure.end && !figure.cycle;
  const gliding = glidingIn(figure);
  const stays = new Map([...anchors].filter(([contact]) => !gliding.has(contact)));
  const held = onHands(
    mixedIn(key.pose, figure, faults, at),
    new Set(stays.keys()),
    (pose) => within(pose, stays, base, key.root, (contact) => still && !base.includes(contact)),
    false,
  );
  // What glides is put down where the fault brings it.
  return { ...held, anchors: new Map([...anchors, ...held.anchors]) };
}

/** Makes a figure ready to be drawn at any time. Cheap: a few postures are settled. */
export function motionOf(
  library: FigureLibrary,
  figure: Figure,
  dose: Dose,
  faults: FaultAmounts = {},
  name = '',
): Motion {
  const base = (figure.base ?? Object.keys(figure.contacts)).flatMap(contactsOf);
  const start: Written = { key: figure.start, at: 'start', stays: true };
  const end: Written[] = figure.end ? [{ key: figure.end, at: 'end', stays: true }] : [];
  const out: Written[] = figure.cycle
    ? (figure.alternates ? [false, true] : [false]).flatMap((mirror) =>
        (figure.cycle ?? []).map((key) => ({ key, at: 'end' as const, mirror })),
      )
    : [start, ...figure.via.map((key) => ({ key, at: 'end' as const })), ...end];
  const home: Written[] = figure.back ? figure.back.map((key) => ({ key, at: 'end' as const })) : [];

  // Clean first: a fault does not move the feet to another place.
  const cleanOut = settleAll(library, figure, out, base, []);
  const cleanHome = settleAll(library, figure, home, base, cleanOut);
  const faulty = Object.values(faults).some((amount) => amount > 0);
  const elsewhere = Object.entries(faults).some(([id, amount]) => amount > 0 && figure.faults[id]?.stance);
  const held = (clean: readonly Key[], written: readonly Written[]): Key[] =>
    clean.map((key, i) => withFaults(key, figure, faults, written[i]?.at ?? 'end', base));
  const outKeys = elsewhere
    ? settleAll(library, figure, out, base, [], faults)
    : faulty
      ? held(cleanOut, out)
      : cleanOut;
  const homeKeys = elsewhere
    ? settleAll(library, figure, home, base, outKeys, faults)
    : faulty
      ? held(cleanHome, home)
      : cleanHome;

  const segments = figure.cycle
    ? roundOf(outKeys, figure.step, dose.phases)
    : figure.end
      ? repOf(outKeys, homeKeys, figure.first, dose)
      : outKeys.slice(0, 1).map((key): Segment => ({ from: key, to: key, seconds: BREATH_SECONDS, phase: null }));
  const travel = figure.cycle ? travelOf(outKeys) : ([0, 0, 0] as Vec);
  return {
    name,
    figure,
    segments,
    seconds: segments.reduce((sum, { seconds }) => sum + seconds, 0),
    travel,
    still: !figure.cycle && !figure.end,
    base,
    sides: dose.sides,
    position: dose.position,
    keys: outKeys,
    partner: figure.partner ? bodyAt(poseOf(library, figure.partner.pose), figure.partner.at) : null,
  };
}

function repOf(out: readonly Key[], home: readonly Key[], first: Begins, { dose, phases }: Dose): Segment[] {
  const [go, there, back, rest] = repSeconds(dose.tempo, first);
  const [goPhase, therePhase, backPhase, restPhase] = phasesOfRep(phases, first);
  const start = out[0] as Key;
  const last = out.at(-1) as Key;
  const leg = (keys: readonly Key[], seconds: number, phase: Phase | null): Segment[] =>
    keys.slice(1).map((to, i) => ({ from: keys[i] as Key, to, seconds: seconds / (keys.length - 1), phase }));
  return [
    ...leg(out, go, goPhase),
    { from: last, to: last, seconds: there, phase: therePhase },
    ...leg(home.length > 0 ? [last, ...home, start] : out.toReversed(), back, backPhase),
    { from: start, to: start, seconds: rest, phase: restPhase },
  ];
}

/** The last posture leads to the first one again, a stride further on. */
function roundOf(keys: readonly Key[], seconds: number, phases: readonly Phase[]): Segment[] {
  const phase = phases.find((one) => !AROUND.includes(one)) ?? null;
  const by = travelOf(keys);
  const first = keys[0] as Key;
  const again: Key = {
    pose: first.pose,
    root: add(first.root, by),
    anchors: new Map(
      [...first.anchors].map(([contact, { at, lies, end }]) => [
        contact,
        { at: add(at, by), ...(lies ? { lies } : {}), ...(end ? { end: add(end, by) } : {}) },
      ]),
    ),
  };
  return [...keys, again].slice(1).map((to, i) => ({ from: keys[i] as Key, to, seconds, phase }));
}

function travelOf(keys: readonly Key[]): Vec {
  const first = keys[0];
  const last = keys.at(-1);
  for (const [contact, { at }] of last?.anchors ?? []) {
    const was = first?.anchors.get(contact);
    if (was && last !== first) return minus(at, was.at);
  }
  return [0, 0, 0];
}

const eased = (share: number): number => (1 - Math.cos(Math.PI * share)) / 2;

function mixed(a: Pose, b: Pose, share: number): Pose {
  if (a === b) return a;
  const pose: Record<Angle, number> = { ...a };
  for (const angle of ANGLES) {
    const [from, to] = [a[angle], b[angle]];
    if (from !== to) pose[angle] = from + (to - from) * share;
  }
  return pose;
}

/** Degrees by which a breath lifts and opens the chest. */
function breathing(pose: Pose, seconds: number): Pose {
  const swell = Math.sin((2 * Math.PI * seconds) / BREATH_SECONDS);
  const [least, most] = LIMITS['thorax.flex'];
  return { ...pose, 'thorax.flex': Math.min(most, Math.max(least, pose['thorax.flex'] - 0.8 * swell)) };
}

/** The height of what of a foot is lowest: the heel of one whose toes point up. */
const lowestOf = ({ heel, ball, toe }: Body['left']): number => Math.min(heel[1], ball[1], toe[1]);

/** Anchors of the contacts that stay, and of the feet that glide where they are on their way: no higher and no lower than at its ends. */
function slidOn(
  figure: Figure,
  anchors: Anchors,
  held: (kept: Anchors) => Body,
  ends: [Key, Key],
  way: number,
): Anchors {
  const feet = SIDES_OF_BODY.filter((side) => glidingIn(figure).has(`${side}.foot`) && anchors.has(`${side}.foot`));
  if (feet.length === 0) return anchors;
  const body = held(new Map([...anchors].filter(([contact]) => !glidingIn(figure).has(contact))));
  const [from, to] = ends.map(({ pose, root }) => bodyAt(pose, root)) as [Body, Body];
  const slid = feet.map((side): [Contact, Anchor] => {
    const foot = body[side];
    const height = lowestOf(from[side]) + (lowestOf(to[side]) - lowestOf(from[side])) * way;
    return [`${side}.foot`, { at: add(foot.ball, [0, height - lowestOf(foot), 0]), lies: foot.foot }];
  });
  return new Map([...anchors, ...slid]);
}

/** The body at a time in seconds; a round begins anew after its end. */
export function frameAt(motion: Motion, seconds: number): Frame {
  let left = ((seconds % motion.seconds) + motion.seconds) % motion.seconds;
  const share = left / motion.seconds;
  let segment = motion.segments[0] as Segment;
  for (const one of motion.segments) {
    segment = one;
    if (left <= one.seconds) break;
    left -= one.seconds;
  }
  const { from, to, phase } = segment;
  const way = eased(Math.min(1, left / segment.seconds));
  const both = new Map([...from.anchors].filter(([contact]) => to.anchors.has(contact)));
  const pose = mixed(from.pose, to.pose, way);
  const moved = motion.still ? breathing(pose, seconds) : pose;
  const root = between(from.root, to.root, way);
  const anchors = slidOn(motion.figure, both, (kept) => hold(moved, kept, motion.base, root).body, [from, to], way);
  const held = hold(moved, anchors, motion.base, root);
  return { ...held, anchors, phase, travelled: times(motion.travel, share) };
}

/** Times of the key postures: the ends of a rep and the middle of its way, each step of a round, or the one posture of a hold. */
export function keyTimes(motion: Motion): number[] {
  const starts = motion.segments.map((_, i) => motion.segments.slice(0, i).reduce((sum, one) => sum + one.seconds, 0));
  if (motion.still) return [0];
  if (motion.figure.cycle) return starts;
  const there = motion.segments.findIndex(({ from, to }) => from === to);
  const end = starts[there] ?? motion.seconds / 2;
  return [0, end / 2, end];
}

/** Rounds of `each`-side movements before the other side is shown. */
const ROUNDS_A_SIDE = 3;

/** Whether this round shows the other side, as the movement's sides have it. */
export const otherSide = ({ sides, seconds: round, figure }: Motion, seconds: number): boolean => {
  if (figure.cycle || sides === 'both') return false;
  const rounds = Math.floor(seconds / round);
  return (sides === 'each' ? Math.floor(rounds / ROUNDS_A_SIDE) : rounds) % 2 === 1;
};
