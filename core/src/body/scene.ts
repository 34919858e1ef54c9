/** Everything on a picture of a figure at one moment: the person in their skin, what they hold, and what stands about. */
import { bonesOf } from './bones.js';
import { INKS } from './look.js';
import { type Frame, frameAt, type Motion } from './motion.js';
import type { Camera } from './projection.js';
import { restBody } from './rest.js';
import { roomFor, type Skin, skinned } from './skin.js';
import type { SkinChoice } from './skin-file.js';
import type { Solid } from './solid.js';
import { furnitureOf, handOf, heldAt, wallOf } from './things.js';

const REST = restBody();

export interface Scene {
  frame: Frame;
  person: Solid;
  held: Solid | null;
  furniture: Solid | null;
  wall: Solid | null;
  /** Somebody who helps, all of one pale colour. */
  partner: Solid | null;
}

/** How the hands of a figure are closed. */
export const handsOf = ({ figure }: Motion): SkinChoice['hands'] => ({
  left: handOf(figure, 'left'),
  right: handOf(figure, 'right'),
});

/** Makes the scenes of a motion, in other inks than the skin's own where asked for. Each writes into the same room: the one before is gone when the next is made. */
export function stagerFor(motion: Motion, skin: Skin, inks: Uint8Array = skin.zones): (seconds: number) => Scene {
  const posed = roomFor(skin);
  const furniture = furnitureOf(motion);
  const wall = wallOf(motion);
  const partner = motion.partner && {
    ...skinned(skin, bonesOf(motion.partner, REST)),
    triangles: skin.triangles,
    inks: new Uint8Array(skin.count).fill(INKS.indexOf('partner')),
    open: skin.open,
  };
  const matrices = bonesOf(REST, REST);
  return (seconds) => {
    const frame = frameAt(motion, seconds);
    skinned(skin, bonesOf(frame.body, REST, matrices), posed);
    return {
      frame,
      person: { ...posed, triangles: skin.triangles, inks, open: skin.open },
      held: heldAt(motion.figure, frame.body),
      furniture,
      wall,
      partner,
    };
  };
}

/** What is drawn of a scene: a wall that stands between the eye and the body is looked through. */
export const solidsOf = (
  { frame, person, held, furniture, wall, partner }: Scene,
  { back }: Pick<Camera, 'back'>,
): Solid[] => {
  const ahead = wall ? Math.sign((wall.positions[0] ?? 0) - frame.body.root[0]) : 0;
  const open = ahead * back[0] > LOOKED_THROUGH ? null : wall;
  return [open, furniture, partner, held, person].filter((solid) => solid !== null);
};

/** How far an eye must be on the other side of a wall. */
const LOOKED_THROUGH = 0.3;
