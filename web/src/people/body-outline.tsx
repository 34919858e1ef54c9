/** A body from the front and from the back, on which sore and painful places are marked: each press goes one step on, then off again. */
import { boundsOf, type LandmarkName, landmarksAt, type Motion } from '@waxwing/core/body';
import type { TodayCheck } from '@waxwing/core/client';
import { inWords, type Region } from '@waxwing/core/movement';
import { useMemo } from 'react';

import { FigureDrawing } from '../figures/figure';
import { useMotion } from '../figures/use-motion';
import { say } from '../words/say';

type Pain = TodayCheck['pains'][number];

/** What one more press makes of a place. */
const NEXT: Readonly<Record<Pain['quality'], Pain['quality'] | null>> = { sore: 'dull', dull: 'sharp', sharp: null };
export const QUALITY_WORDS: Readonly<Record<Pain['quality'], string>> = say.people.qualityWords;

const LIMBS: readonly [Region, LandmarkName, LandmarkName][] = [
  ['shoulder', 'left.shoulder', 'right.shoulder'],
  ['elbow', 'left.elbow', 'right.elbow'],
  ['wrist', 'left.wrist', 'right.wrist'],
  ['hip', 'left.hip', 'right.hip'],
  ['knee', 'left.knee', 'right.knee'],
  ['ankle', 'left.ankle', 'right.ankle'],
  ['foot', 'left.toe', 'right.toe'],
];
const MIDDLE_BACK: readonly [Region, LandmarkName][] = [
  ['neck', 'headBase'],
  ['upper-back', 'nape'],
  ['low-back', 'waist'],
];

interface Place {
  region: Region;
  side: Pain['side'];
  at: LandmarkName;
}

const BOTH_SIDES: readonly Place[] = LIMBS.flatMap(([region, left, right]) => [
  { region, side: 'left', at: left } as const,
  { region, side: 'right', at: right } as const,
]);
const BACK: readonly Place[] = MIDDLE_BACK.map(([region, at]) => ({ region, side: 'middle', at }));

/** Places of the limbs that are pressed on the back, so that none covers another. */
const BEHIND: readonly Region[] = ['elbow', 'ankle'];

/** The standing movement whose figure lends the outline. */
const STANDING = {
  id: 'bodyweight-squat',
  sides: 'both',
  dose: { mode: 'reps', tempo: '3-1-1-0', windows: {} },
} as const;

export const placeWords = ({ region, side }: Pick<Pain, 'region' | 'side'>): string =>
  `${side === 'middle' ? '' : `${side} `}${inWords(region)}`;

interface Props {
  pains: readonly Pain[];
  onChange: (pains: Pain[]) => void;
}

export function BodyOutline({ pains, onChange }: Props) {
  const motion = useMotion(STANDING);
  if (!motion) return null;
  const press = (place: Place) => {
    const is = (pain: Pain) => pain.region === place.region && pain.side === place.side;
    const now = pains.find(is);
    const next = now ? NEXT[now.quality] : 'sore';
    const rest = pains.filter((pain) => !is(pain));
    onChange(next ? [...rest, { region: place.region, side: place.side, quality: next }] : rest);
  };
  return (
    <div className="grid max-w-xl grid-cols-2 gap-4">
      <Side
        title={say.people.front}
        view="front"
        motion={motion}
        places={BOTH_SIDES.filter(({ region }) => !BEHIND.includes(region))}
        pains={pains}
        press={press}
      />
      <Side
        title={say.common.back}
        view="back"
        motion={motion}
        places={[...BACK, ...BOTH_SIDES.filter(({ region }) => BEHIND.includes(region))]}
        pains={pains}
        press={press}
      />
    </div>
  );
}

const MARK: Readonly<Record<Pain['quality'], string>> = { sore: '~', dull: '●', sharp: '✕' };

function Side({
  title,
  view,
  motion,
  places,
  pains,
  press,
}: {
  title: string;
  view: 'front' | 'back';
  motion: Motion;
  places: readonly Place[];
  pains: readonly Pain[];
  press: (place: Place) => void;
}) {
  const box = useMemo(() => boundsOf(motion, view), [motion, view]);
  const marks = useMemo(() => landmarksAt(motion, 0, view), [motion, view]);
  return (
    <figure>
      <figcaption className="font-bold">{title}</figcaption>
      <div className="relative" style={{ aspectRatio: `${box.width} / ${box.height}` }}>
        <FigureDrawing
          motion={motion}
          at={0}
          view={view}
          title=""
          box={box}
          className="absolute inset-0 h-full w-full"
        />
        {places.map((place) => {
          const { x, y } = marks[place.at].spot;
          const pain = pains.find(({ region, side }) => region === place.region && side === place.side);
          return (
            <button
              key={`${place.region} ${place.side}`}
              type="button"
              aria-label={`${placeWords(place)}: ${pain ? QUALITY_WORDS[pain.quality] : say.people.nothing}`}
              className={`absolute flex h-9 w-9 -translate-x-1/2 -translate-y-1/2 items-center justify-center rounded-full border-2 text-lg font-bold ${
                pain && pain.quality !== 'sore'
                  ? 'alarm border-white'
                  : pain
                    ? 'bg-base-100 border-base-content text-base-content'
                    : 'bg-base-100/70 border-base-content/60'
              }`}
              style={{
                left: `${(100 * (x - box.x)) / box.width}%`,
                top: `${(100 * (y - box.y)) / box.height}%`,
              }}
              onClick={() => press(place)}
            >
              <span aria-hidden>{pain ? MARK[pain.quality] : ''}</span>
            </button>
          );
        })}
      </div>
    </figure>
  );
}
