/** Who shows the movements: a mix of people, or one that a studio or a client has chosen, by build and skin. */
export const BUILDS = ['broad', 'narrow'] as const;
export type Build = (typeof BUILDS)[number];

/** From the palest to the darkest. */
export const TONES = ['fair', 'light', 'tan', 'brown', 'deep'] as const;
export type Tone = (typeof TONES)[number];

export type Looks = `${Build}-${Tone}`;
export const LOOKS: readonly Looks[] = BUILDS.flatMap((build) => TONES.map((tone): Looks => `${build}-${tone}`));
