/** How the figure is lit and coloured: one key light from the upper left of whoever looks, in three tones of each colour. */
import { type Build, BUILDS, type Looks, type Tone, TONES } from '../movement/looks.js';
import { unit, type Vec } from './rotation.js';
import { ZONES } from './skin.js';

/** What things are made of, beside what the body wears. */
export const INKS = [
  ...ZONES,
  'iron',
  'steel',
  'wood',
  'pack',
  'band',
  'prop',
  'mat',
  'wall',
  'prime',
  'assist',
  'partner',
] as const;
export type Ink = (typeof INKS)[number];

export type Palette = Readonly<Record<Ink, string>>;

/** The three tones: shares of a colour, and how bright a place must be for the second and the third. */
export const TONE_STEPS = { shares: [0.46, 0.72, 0.98], from: [0.5, 0.86] } as const;

/** Directions as the eye sees them: x to the right, y up, z towards it. */
export const KEY_LIGHT = unit([-0.48, 0.72, 0.62]);
export const FILL_LIGHT = unit([0.8, 0.1, 0.45]);
/** How far the key light wraps round, how bright it is, and what comes from above and from the floor. */
export const LIGHT = { wrap: 0.3, key: 0.82, sky: 0.38, ground: 0.25, fill: 0.08, rim: 0.3 } as const;

/** How bright a place is, about 0–1.2, by its normal as the eye sees it and how open it lies. */
export function brightness([x, y, z]: Vec, open: number): number {
  const key = x * KEY_LIGHT[0] + y * KEY_LIGHT[1] + z * KEY_LIGHT[2];
  const fill = Math.max(0, x * FILL_LIGHT[0] + y * FILL_LIGHT[1] + z * FILL_LIGHT[2]);
  const edge = 1 - Math.max(0, z);
  const around = LIGHT.ground + (LIGHT.sky - LIGHT.ground) * (0.5 + 0.5 * y);
  const direct = Math.max(0, (key + LIGHT.wrap) / (1 + LIGHT.wrap));
  return (
    (open * around + LIGHT.key * direct * (0.35 + 0.65 * open) + LIGHT.fill * fill) *
    (1 - LIGHT.rim * edge * edge * edge)
  );
}

export const toneAt = (bright: number): 0 | 1 | 2 =>
  bright < TONE_STEPS.from[0] ? 0 : bright < TONE_STEPS.from[1] ? 1 : 2;

export const linear = (c: number): number => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);
export const encoded = (c: number): number => (c <= 0.0031308 ? c * 12.92 : 1.055 * c ** (1 / 2.4) - 0.055);

/** A colour `#rrggbb` as three shares of light. */
export const lightOf = (hex: string): Vec =>
  [1, 3, 5].map((i) => linear(parseInt(hex.slice(i, i + 2), 16) / 255)) as unknown as Vec;

/** A colour in one of its tones; in greys for a printer where asked for. */
export function toned(hex: string, tone: 0 | 1 | 2, grey = false): string {
  const light = lightOf(hex).map((c) => Math.min(1, c * TONE_STEPS.shares[tone]));
  const [r = 0, g = 0, b = 0] = light;
  const even = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return `#${light
    .map((c) =>
      Math.round(encoded(grey ? even : c) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

export const SKINS = ['#e8c4a8', '#d0a384', '#b07d5a', '#86583c', '#5c3b29'] as const;
const HAIR_COLOURS = ['#43362f', '#2b2320', '#6b4a30', '#8d6a45', '#8a8580'] as const;
const TOPS = ['#7d8f8c', '#8f7f6d', '#6f7f92', '#94766c', '#7f8a68'] as const;

/** Who is shown: which build, which hair, and in which colours. */
export interface Person {
  build: Build;
  hair: 'short' | 'cropped' | 'bob' | 'bun';
  skin: number;
  hairColour: number;
  top: number;
}

const THINGS = {
  shorts: '#3f464a',
  shoe: '#e9e4dc',
  sole: '#8c5a44',
  iron: '#3c3d40',
  steel: '#9a9da0',
  wood: '#b58a5c',
  pack: '#7d6a58',
  band: '#6d7a86',
  prop: '#d3cbc0',
  mat: '#b9c2bd',
  wall: '#e6dfd5',
  prime: '#256b75',
  assist: '#8bb0ae',
  partner: '#cdc3b6',
} as const;
/** On a dark ground what is dark is lifted, and what is pale is dimmed. */
const DIM = {
  shorts: '#4b5256',
  iron: '#5a5c60',
  prop: '#5b544e',
  mat: '#3f4744',
  wall: '#37322f',
  prime: '#3d95a0',
  assist: '#6b8988',
  partner: '#6f675f',
} as const;

/** For who needs contrast what is pale is darker on the white ground. */
const CONTRAST = {
  prop: '#8f857a',
  mat: '#8d9893',
  wall: '#b3a99d',
  shoe: '#c9c2b8',
  steel: '#6f7477',
  partner: '#9a9086',
} as const;

/** What a figure stands on: the page as it is, dim, or of high contrast. */
export type Ground = 'light' | 'dim' | 'contrast';
const ON: Readonly<Record<Ground, Partial<Palette>>> = { light: {}, dim: DIM, contrast: CONTRAST };

const pick = <T>(list: readonly [T, ...T[]], i: number): T => list[i % list.length] ?? list[0];

export const paletteOf = ({ skin, hairColour, top }: Person, ground: Ground = 'light'): Palette => ({
  ...THINGS,
  ...ON[ground],
  skin: pick(SKINS, skin),
  hair: pick(HAIR_COLOURS, hairColour),
  top: pick(TOPS, top),
});

const HAIR_OF = { broad: ['short', 'cropped', 'short', 'bun'], narrow: ['bun', 'bob', 'bob', 'cropped'] } as const;

/** A mix of people, always the same one for a name; with chosen looks only the colours of hair and top are mixed. */
export function personFor(name: string, looks: Looks | null = null): Person {
  let hash = 2166136261;
  for (const letter of name) hash = Math.imul(hash ^ letter.charCodeAt(0), 16777619) >>> 0;
  const draw = (most: number): number => {
    hash = Math.imul(hash ^ (hash >>> 15), 2246822519) >>> 0;
    return hash % most;
  };
  const [chosenBuild, chosenTone] = (looks?.split('-') ?? []) as [Build?, Tone?];
  const mixedBuild = BUILDS[draw(2)] ?? 'broad';
  const build = chosenBuild ?? mixedBuild;
  const [hair, skin] = [draw(4), draw(SKINS.length)];
  return {
    build,
    hair: HAIR_OF[build][hair] ?? 'short',
    skin: chosenTone ? TONES.indexOf(chosenTone) : skin,
    hairColour: draw(HAIR_COLOURS.length),
    top: draw(TOPS.length),
  };
}
