/** Somebody face down on hands and knees, or on hands and feet: the body tips until arms that are drawn straight are straight and reach the floor. */
import { type Anchors, type Contact, pointOf } from './contacts.js';
import type { Body } from './kinematics.js';
import { axisX, distance, type Vec } from './rotation.js';
import { LIMITS, type Pose, SIDES_OF_BODY } from './skeleton.js';

interface Settled {
  pose: Pose;
  root: Vec;
  anchors: Anchors;
  body: Body;
}

/** Further than this nobody is tipped: what then still does not fit was drawn so. */
const MOST_TIP = 32;
const STEP = 1;
/** Degrees by which an elbow may be more bent than it is drawn. */
const NEAR = 6;
/** A knee or foot that is further from its place was pulled off it by arms that are too short, in centimetres. */
const PULLED = 0.3;
/** An arm that is drawn more bent than this bends on purpose. */
const STRAIGHT = 30;
/** A thigh that stands is bent at least so far; one that lies in line with the trunk tips with it. */
const STANDING_THIGH = 45;
/** Face down: how far the front of the chest looks to the floor; and not upright: how much higher the nape may be than the hips. */
const FACES_DOWN = -0.3;
const UPRIGHT_CM = 42;

const clamp = (angle: keyof typeof LIMITS, value: number): number =>
  Math.min(LIMITS[angle][1], Math.max(LIMITS[angle][0], value));

/** A posture tipped back by so many degrees; what is not held keeps its place in the room. */
function tippedBy(pose: Pose, by: number, kneels: boolean): Pose {
  const changed = { ...pose, 'pelvis.tilt': clamp('pelvis.tilt', pose['pelvis.tilt'] - by) };
  for (const side of SIDES_OF_BODY) {
    changed[`${side}.shoulder.flex`] = clamp(`${side}.shoulder.flex`, pose[`${side}.shoulder.flex`] - by);
    if (kneels) changed[`${side}.hip.flex`] = clamp(`${side}.hip.flex`, pose[`${side}.hip.flex`] - by);
  }
  return changed;
}

/**
 * Settles a posture that leans on its hands.
 * @param rests contacts that lie on something level; a hand on a wall or a strap is not leaned on so
 * @param settle puts a posture down on its contacts
 * @param alsoBack whether arms that are too bent are straightened, too; a fault may bend them
 */
export function onHands<Key extends Settled>(
  pose: Pose,
  rests: ReadonlySet<Contact>,
  settle: (pose: Pose) => Key,
  alsoBack: boolean,
): Key {
  const hands = SIDES_OF_BODY.filter((side) => rests.has(`${side}.hand`) && pose[`${side}.elbow.flex`] < STRAIGHT);
  const legs = [...rests].filter((contact) => contact.endsWith('.foot') || contact.endsWith('.knee'));
  const first = settle(pose);
  if (hands.length === 0 || legs.length === 0 || rests.has('seat')) return first;
  const { nape, root, thorax } = first.body;
  if (axisX(thorax)[1] > FACES_DOWN || nape[1] - root[1] > UPRIGHT_CM) return first;

  const kneels = SIDES_OF_BODY.some((side) => rests.has(`${side}.knee`) && pose[`${side}.hip.flex`] > STANDING_THIGH);
  const tooBent = (key: Key): boolean =>
    hands.reduce((sum, side) => sum + key.pose[`${side}.elbow.flex`] - pose[`${side}.elbow.flex`], 0) >
    NEAR * hands.length;
  const pulled = ({ body, anchors }: Key): boolean =>
    legs.some((contact) => {
      const anchor = anchors.get(contact);
      return anchor !== undefined && distance(anchor.at, pointOf(body, contact)) > PULLED;
    });
  const wrong = (key: Key): boolean => (alsoBack && tooBent(key)) || pulled(key);
  if (!wrong(first)) return first;
  // The least that mends it. Shoulders that are too low go up, and arms that do not reach bring them down.
  const way = pulled(first) ? -1 : 1;
  const at = (by: number): Key => settle(tippedBy(pose, way * by, kneels));
  for (let by = STEP; by <= MOST_TIP; by += STEP) {
    const key = at(by);
    if (!wrong(key)) return key;
    if (way < 0 || !pulled(key)) continue;
    // Between too bent and too far up there is little room.
    const between = [0.25, 0.5, 0.75].map((share) => at(by - STEP * share)).find((one) => !wrong(one));
    return between ?? first;
  }
  return first;
}
