/** Where a session is held: the studio, the home of somebody who takes part, or a place that the studio keeps. Each has its own kit and room. */
import type { KitPiece } from '../movement/kit-schema.js';
import { PURPOSES, type Space } from '../movement/vocabulary.js';
import { uuid } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import type { ClientOnDay } from './client-schema.js';
import type { Studio } from './studio-schema.js';

/** `home` names the client, `elsewhere` the kept place. */
export const placeRefSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('studio') }),
  z.strictObject({ kind: z.literal('home'), id: uuid }),
  z.strictObject({ kind: z.literal('elsewhere'), id: uuid }),
]);
export type PlaceRef = z.infer<typeof placeRefSchema>;

export const AT_STUDIO: PlaceRef = { kind: 'studio' };

/** What a session is for, and where: every answer about the next time is asked with both. */
export const aimSchema = z.strictObject({ purpose: z.enum(PURPOSES), place: placeRefSchema });
export type Aim = z.infer<typeof aimSchema>;

/** Where nothing is planned and nothing was. */
export const USUAL_AIM: Aim = { purpose: 'strength', place: AT_STUDIO };

export interface Place {
  ref: PlaceRef;
  name: string;
  kit: readonly KitPiece[];
  /** The room that there is to work in. */
  space: Space;
}

type Host = Pick<Studio, 'name' | 'kit' | 'space' | 'places'>;
type Guest = Pick<ClientOnDay, 'id' | 'name' | 'kit' | 'homeSpace'>;

const homeOf = ({ id, name, kit, homeSpace }: Guest): Place => ({
  ref: { kind: 'home', id },
  name: `${name.split(' ')[0] ?? name}’s home`,
  kit,
  space: homeSpace,
});

/** Every place where these people could meet, the studio first. */
export const placesFor = (studio: Host, clients: readonly Guest[]): Place[] => [
  { ref: AT_STUDIO, name: studio.name, kit: studio.kit, space: studio.space },
  ...clients.map(homeOf),
  ...studio.places.map(({ id, name, kit, space }): Place => ({ ref: { kind: 'elsewhere', id }, name, kit, space })),
];

/** A place as one word, for lists and keys. */
export const placeKey = (ref: PlaceRef): string => (ref.kind === 'studio' ? ref.kind : `${ref.kind} ${ref.id}`);

/** The place that is meant. One that is gone has nothing in it: what needs kit is closed there, and says so. */
export const placeOf = (ref: PlaceRef, studio: Host, clients: readonly Guest[]): Place =>
  placesFor(studio, clients).find((place) => placeKey(place.ref) === placeKey(ref)) ?? {
    ref,
    name: 'a place that is gone',
    kit: [],
    space: 'spot',
  };

/** What somebody has to work with at a place. At the home of another, who is not asked about here, it is taken to be what the studio has. */
export const kitAt = (ref: PlaceRef, studio: Host, client: Guest): readonly KitPiece[] =>
  placeOf(ref.kind === 'home' && ref.id !== client.id ? AT_STUDIO : ref, studio, [client]).kit;

/** What is never the same twice: a kit with what was brought along for one session. */
export const kitWith = (kit: readonly KitPiece[], brought: readonly KitPiece[]): readonly KitPiece[] =>
  brought.length === 0 ? kit : [...kit, ...brought];
