/** What is in a room, as requests, files and the store hold it. */
import { line, number, whole } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { KIT_ITEMS } from './vocabulary.js';

/** Plates of one weight, each counted: they go on in fours for a pair of handles, in twos for one. */
export const platesSchema = z.strictObject({
  /** Kilograms of one plate. */
  kg: number(0.05, 100),
  count: whole(1, 99),
});
export type Plates = z.infer<typeof platesSchema>;

/** One kind of thing in a kit. Weighed things carry their load; `label` keeps how it was entered (`25 lb`). */
export const kitPieceSchema = z.strictObject({
  item: z.enum(KIT_ITEMS),
  count: whole(1, 99),
  /** Kilograms of one piece; of the bare handle where there are plates, of the lightest setting where there is a step. */
  kg: number(0.1, 500).nullish(),
  label: line(40).nullish(),
  /** The unit it was entered in; kilograms unless said. What a person reads keeps it. */
  unit: z.enum(['lb']).nullish(),
  /** What an adjustable handle or a bar can be loaded with. */
  plates: z.array(platesSchema).max(20, 'has at most 20 kinds of plate').nullish(),
  /** A stack's next setting, and its heaviest. */
  stepKg: number(0.1, 100).nullish(),
  mostKg: number(0.1, 500).nullish(),
  /** Seconds to set another weight. */
  changeSeconds: whole(0, 600).nullish(),
  /** Bands: place from the lightest, 1 first. */
  order: whole(1, 20).nullish(),
  /** Steps and boxes: the heights there are, in centimetres. */
  heightsCm: z.array(whole(1, 200)).max(10, 'has at most 10 heights').nullish(),
});
export type KitPiece = z.infer<typeof kitPieceSchema>;

export const kitSchema = z.array(kitPieceSchema).max(100, 'has at most 100 pieces');
