/** A figure as it is written in the library: postures in layers, what holds the body, what is held, and its faults as differences. */
import type { z } from 'zod';

import type { Contact } from './contacts.js';
import type { figureSchema, keySchema, layersSchema } from './figure-schema.js';
import { MACHINE_ITEMS } from './machines.js';

export const HELD_ITEMS = [
  'dumbbell',
  'bell',
  'barbell',
  'backpack',
  'dowel',
  'ball',
  'handle',
  'long-bar',
  'trap-bar',
  'skip-rope',
  'sled',
  'roller',
  'pads',
  'board',
  'seat',
  'cushion',
  'swiss-ball',
] as const;
/** Where a load is: in the hands, or on another part of the body that carries or moves it. */
export const HELD_IN = [
  'hands',
  'left',
  'right',
  'between',
  'across',
  'back',
  'hips',
  'shins',
  'heels',
  'knees',
  'feet',
  'head',
] as const;
export const LINE_ITEMS = ['band', 'strap', 'cable', 'rope'] as const;
export const PROP_ITEMS = [
  'bench',
  'step',
  'chair',
  'wall',
  'mat',
  'bar',
  'slider',
  'box',
  'ball',
  'cushion',
  'rail',
  ...MACHINE_ITEMS,
] as const;

/** Names that stand for both sides. */
export const PLURALS: Readonly<Record<string, readonly Contact[]>> = {
  feet: ['left.foot', 'right.foot'],
  hands: ['left.hand', 'right.hand'],
  knees: ['left.knee', 'right.knee'],
  forearms: ['left.forearm', 'right.forearm'],
};

/** The contacts that a written name stands for. */
export const contactsOf = (written: string): readonly Contact[] => PLURALS[written] ?? [written as Contact];

export type Figure = z.output<typeof figureSchema>;
export type FigureFault = Figure['faults'][string];
export type FigureKey = z.output<typeof keySchema>;
export type Layers = z.output<typeof layersSchema>;

/** Every posture by its name, and every figure by its movement's id. */
export interface FigureLibrary {
  poses: Readonly<Record<string, Readonly<Record<string, number>>>>;
  figures: Readonly<Record<string, Figure>>;
}

export const layersOf = (written: FigureKey): Layers => (Array.isArray(written) ? written : written.pose);
