/** Everything on a picture of a figure at one moment: the person in their skin, what they hold, and what stands about. */
import { bonesOf } from './bones.js';
import { frameAt, type Frame, type Motion } from './motion.js';
import { restBody } from './rest.js';
import type { SkinChoice } from './skin-file.js';
import { roomFor, skinned, type Skin } from './skin.js';
import type { Solid } from './solid.js';
import { furnitureOf, handOf, heldAt } from './things.js';

const REST = restBody();

export interface Scene {
  frame: Frame;
  person: Solid;
  held: Solid | null;
  furniture: Solid | null;
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
  const matrices = bonesOf(REST, REST);
  return (seconds) => {
    const frame = frameAt(motion, seconds);
    skinned(skin, bonesOf(frame.body, REST, matrices), posed);
    return {
      frame,
      person: { ...posed, triangles: skin.triangles, inks, open: skin.open },
      held: heldAt(motion.figure, frame.body),
      furniture,
    };
  };
}

export const solidsOf = ({ person, held, furniture }: Scene): Solid[] =>
  [furniture, held, person].filter((solid) => solid !== null);
